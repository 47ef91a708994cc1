<script lang="ts">
	import TriangleAlert from '@lucide/svelte/icons/triangle-alert';
	import { api, ask, type Schemas } from '$lib/api';
	import { SignatureDialog } from '$lib/session';

	interface Props {
		draft: Schemas['SheetDraftOut'];
		onDone: () => void;
	}
	let { draft, onDone }: Props = $props();

	let signing = $state(false);
	const loosened = $derived(draft.changes.filter((change) => change.loosens));
	const others = $derived(draft.changes.filter((change) => !change.loosens));

	async function sign(pin: string) {
		const path = { key: draft.key, version: draft.version };
		const answer = await ask(
			api.POST('/api/sheets/{key}/{version}/approve', { params: { path }, body: { pin } })
		);
		return answer.problem;
	}
</script>

{#snippet changed(change: Schemas['SheetChangeOut'])}
	<li class="py-1">
		<span class="badge badge-outline badge-sm">{change.weight}</span>
		<strong class="break-all">{change.path}</strong>: {change.was ?? 'not there'} → {change.now ??
			'taken out'}
	</li>
{/snippet}

<li class="border-t border-base-300 py-3">
	<p>
		<strong>{draft.name}</strong>, version {draft.version}
		<span class="faint">· drafted by {draft.drafted_by} · to be approved by {draft.needs}</span>
	</p>
	{#if loosened.length}
		<p class="mt-1 flex items-center gap-2 font-semibold text-warning">
			<TriangleAlert size={20} aria-hidden="true" />Requires less than the version in use
		</p>
		<ul class="ml-2" aria-label="What {draft.name} loosens">
			{#each loosened as change (change.path)}{@render changed(change)}{/each}
		</ul>
	{/if}
	{#if others.length}
		<details class="mt-1">
			<summary class="btn btn-sm">{others.length} other {others.length === 1 ? 'change' : 'changes'}</summary>
			<ul class="ml-2">
				{#each others as other (other.path)}{@render changed(other)}{/each}
			</ul>
		</details>
	{:else if !loosened.length}
		<p class="faint">A new sheet: there is no version in use to compare it with.</p>
	{/if}
	<div class="mt-2 flex flex-wrap items-center gap-2">
		<button class="btn btn-primary" disabled={draft.why_not !== null} onclick={() => (signing = true)}
			>Approve<span class="sr-only">: {draft.name}</span></button
		>
		<a class="btn" href="/api/sheets/{draft.key}/{draft.version}/export" download>Export</a>
		{#if draft.why_not}<span class="faint text-sm">{draft.why_not}.</span>{/if}
	</div>
	{#if signing}
		<SignatureDialog
			what="approval of {draft.name}, version {draft.version}"
			{sign}
			onDone={() => {
				signing = false;
				onDone();
			}}
		/>
	{/if}
</li>
