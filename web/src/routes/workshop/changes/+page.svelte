<script lang="ts">
	import { untrack } from 'svelte';
	import { api, ask, type Problem, type Schemas } from '$lib/api';
	import { moment, ProblemNote } from '$lib/shared';

	const PAGE = 50;
	let changes = $state.raw<Schemas['ChangeOut'][]>([]);
	let more = $state(true);
	let problem = $state.raw<Problem | null>(null);

	async function load() {
		const before = changes.at(-1)?.id ?? null;
		const answer = await ask(api.GET('/api/trail', { params: { query: { before, limit: PAGE } } }));
		changes = [...changes, ...(answer.data ?? [])];
		more = (answer.data?.length ?? 0) === PAGE;
		problem = answer.problem;
	}
	$effect(() => {
		void untrack(load);
	});

	const shown = (values: Record<string, unknown>) =>
		Object.entries(values)
			.map(
				([name, value]) =>
					`${name.replaceAll('_', ' ')} ${typeof value === 'object' ? JSON.stringify(value) : String(value)}`
			)
			.join(', ');
</script>

<svelte:head><title>Changes · Iron Kettle</title></svelte:head>

<main class="mx-auto w-full max-w-5xl flex-1 p-4 pt-2">
	<h1 class="text-4xl font-extrabold">Changes</h1>
	<p class="mb-2">
		What was changed of people, rights, tools, tokens and shop settings, and entries discarded on a device.
		Nothing here can be changed or removed.
	</p>
	<ProblemNote {problem} />
	<ol>
		{#each changes as change (change.id)}
			<li class="grid gap-x-3 border-t border-base-300 py-1 sm:grid-cols-[11rem_11rem_1fr]">
				<span class="faint">{moment(change.at)}</span>
				<span>{change.who}</span>
				<span class="min-w-0 break-words">
					<strong>{change.noun} {change.subject.replaceAll('_', ' ')}</strong>: {change.change}
					{#if Object.keys(change.before).length || Object.keys(change.after).length}
						<span class="faint block text-sm">
							{#if Object.keys(change.before).length}from {shown(change.before)}{/if}
							{#if Object.keys(change.after).length}to {shown(change.after)}{/if}
						</span>
					{/if}
				</span>
			</li>
		{:else}<li class="panel">Nothing has been changed yet.</li>{/each}
	</ol>
	{#if more && changes.length}<button class="btn mt-2" onclick={load}>Earlier ones</button>{/if}
</main>
