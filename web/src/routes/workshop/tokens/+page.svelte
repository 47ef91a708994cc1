<script lang="ts">
	import { api, ask, type Problem, type Schemas } from '$lib/api';
	import { AddForm, day, ProblemNote } from '$lib/shared';

	let tokens = $state.raw<Schemas['TokenOut'][]>([]);
	let names = $state.raw<Schemas['NameOut'][]>([]);
	let made = $state.raw<Schemas['NewTokenOut'] | null>(null);
	let problem = $state.raw<Problem | null>(null);

	async function load() {
		const answer = await ask(api.GET('/api/tokens'));
		tokens = answer.data ?? tokens;
		problem = answer.problem;
		names = (await ask(api.GET('/api/people'))).data ?? names;
	}
	$effect(() => {
		void load();
	});

	async function add(v: Record<string, string>) {
		const person = names.find((name) => name.name === v.person)?.key ?? '';
		const answer = await ask(api.POST('/api/tokens', { body: { name: v.name ?? '', person } }));
		made = answer.data ?? made;
		await load();
		return answer.problem;
	}

	async function revoke(token: string) {
		const answer = await ask(api.DELETE('/api/tokens/{token}', { params: { path: { token } } }));
		problem = answer.problem;
		if (made?.id === token) made = null;
		await load();
	}
</script>

<svelte:head><title>Tokens · Iron Kettle</title></svelte:head>

<main class="mx-auto w-full max-w-4xl flex-1 p-4 pt-2">
	<h1 class="text-4xl font-extrabold">Tokens</h1>
	<p class="mb-2">
		A script signs in with a token: <code>Authorization: Bearer …</code>. It acts as the person it is made
		for, manages neither people nor tokens, and signs nothing without the PIN.
	</p>
	<ProblemNote {problem} />
	<AddForm
		what="token"
		fields={[
			{ key: 'name', name: 'Purpose', hint: 'stores system' },
			{ key: 'person', name: 'Acts as', choices: names.map((name) => name.name) }
		]}
		{add}
	/>
	{#if made}
		<div class="panel mt-3 border-2 border-warning" role="status">
			<p class="font-semibold">The token of “{made.name}”. It is shown only now:</p>
			<p class="my-1 font-mono text-lg break-all select-all">{made.token}</p>
			<button class="btn" onclick={() => (made = null)}>I have saved it</button>
		</div>
	{/if}
	<ul class="mt-3">
		{#each tokens as token (token.id)}
			<li class="flex flex-wrap items-center gap-3 border-t border-base-300 py-2">
				<span class="flex-1"
					><strong>{token.name}</strong>, {token.use === 'calendar'
						? 'a link for the calendar alone, of'
						: 'acts as'}
					{token.person_name}, made {day(token.made_at)}</span
				>
				{#if token.revoked_at}<span class="faint">revoked {day(token.revoked_at)}</span>
				{:else}<button class="btn" onclick={() => void revoke(token.id)}>Revoke</button>{/if}
			</li>
		{:else}<li class="panel">None yet.</li>{/each}
	</ul>
</main>
