<script lang="ts">
	import { api, ask, type Problem } from '$lib/api';
	import { faultAt, ProblemNote } from '$lib/shared';

	let { mayChange }: { mayChange: boolean } = $props();

	const id = $props.id();
	const FIELDS = [
		{ key: 'name', label: 'Name of the shop', most: 80 },
		{ key: 'contact', label: 'Telephone and e-mail', most: 160 },
		{ key: 'site', label: 'Address of this server, for codes that are scanned', most: 200 },
		{ key: 'zone', label: 'Time zone', most: 60 }
	] as const;
	let typed = $state({ name: '', contact: '', site: '', zone: '' });
	let address = $state('');
	let missing = $state.raw<string[]>([]);
	let problem = $state.raw<Problem | null>(null);
	let kept = $state(false);

	type Answer = Awaited<ReturnType<typeof read>>;
	const read = () => ask(api.GET('/api/letterhead'));
	function take(answer: Answer) {
		problem = answer.problem;
		if (!answer.data) return;
		const { address: lines, missing: empty, ...rest } = answer.data;
		typed = rest;
		address = lines.join('\n');
		missing = empty;
	}

	$effect(() => {
		void read().then(take);
	});

	async function keep(event: SubmitEvent) {
		event.preventDefault();
		const lines = address.split('\n').filter((line) => line.trim());
		const answer = await ask(api.PUT('/api/letterhead', { body: { ...typed, address: lines } }));
		take(answer);
		kept = !answer.problem;
	}
</script>

<section class="panel mb-4 break-inside-avoid" aria-label="Letterhead" id="letterhead">
	<h2 class="text-2xl font-bold">Letterhead</h2>
	<p class="mb-2">
		It stands at the head of every certificate; the times are in this zone. A certificate keeps the letterhead
		it was signed with.
	</p>
	{#if missing.length}<p class="mb-2 font-semibold text-warning">Still empty: {missing.join(', ')}.</p>{/if}
	<form class="grid gap-2" onsubmit={keep} oninput={() => (kept = false)}>
		{#each FIELDS as field (field.key)}
			<label class="block" for="{id}-{field.key}">
				<span class="block font-semibold">{field.label}</span>
				<input
					id="{id}-{field.key}"
					class="entry input w-full"
					maxlength={field.most}
					disabled={!mayChange}
					bind:value={typed[field.key]}
				/>
				{#if faultAt(problem, field.key)}
					<span class="block font-semibold text-error" role="alert">{faultAt(problem, field.key)}</span>
				{/if}
			</label>
		{/each}
		<label class="block" for="{id}-address">
			<span class="block font-semibold">Address, up to 12 lines</span>
			<textarea
				id="{id}-address"
				class="entry textarea w-full"
				rows="4"
				disabled={!mayChange}
				bind:value={address}></textarea>
			{#if faultAt(problem, 'address')}
				<span class="block font-semibold text-error" role="alert">{faultAt(problem, 'address')}</span>
			{/if}
		</label>
		{#if mayChange}
			<button class="btn btn-primary">Keep the letterhead</button>
			<p role="status">{kept ? 'Kept.' : ''}</p>
		{/if}
	</form>
	{#if problem && !problem.errors?.length}<ProblemNote {problem} />{/if}
</section>
