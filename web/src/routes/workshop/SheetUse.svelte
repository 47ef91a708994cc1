<script lang="ts">
	import { api, ask, type Problem, type Schemas } from '$lib/api';
	import { faultAt, ProblemNote } from '$lib/shared';

	interface Props {
		sheet: Schemas['SheetListed'];
		onDone: () => void;
	}
	let { sheet, onDone }: Props = $props();

	const id = $props.id();
	let asking = $state(false);
	let reason = $state('');
	let problem = $state.raw<Problem | null>(null);

	async function use(active: boolean) {
		const body = active ? { active } : { active, reason };
		const answer = await ask(api.PATCH('/api/sheets/{key}', { params: { path: { key: sheet.key } }, body }));
		problem = answer.problem;
		if (problem) return;
		asking = false;
		onDone();
	}
</script>

{#if sheet.active}
	<button class="btn" aria-expanded={asking} onclick={() => (asking = !asking)}
		>Withdraw<span class="sr-only">: {sheet.name}</span></button
	>
{:else}
	<button class="btn" onclick={() => void use(true)}
		>Put back<span class="sr-only">: {sheet.name}</span></button
	>
{/if}
{#if asking}
	<form
		class="w-full"
		onsubmit={(event) => {
			event.preventDefault();
			void use(false);
		}}
	>
		<label class="font-semibold" for={id}>Reason for withdrawing it</label>
		<input {id} class="entry input w-full" autocomplete="off" bind:value={reason} />
		<p class="min-h-6 text-sm text-error">{faultAt(problem, 'reason') ?? ''}</p>
		<button class="btn btn-warning">Withdraw sheet</button>
		<span class="faint text-sm">Open jobs on it go on; no new job is opened.</span>
	</form>
{/if}
{#if problem && !faultAt(problem, 'reason')}<ProblemNote {problem} />{/if}
