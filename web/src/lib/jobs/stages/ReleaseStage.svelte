<script lang="ts">
	import FileText from '@lucide/svelte/icons/file-text';
	import QrCode from '@lucide/svelte/icons/qr-code';
	import type { Problem } from '$lib/api';
	import { SectionDrawing } from '$lib/drawing';
	import { people } from '$lib/people';
	import { Findings, ProblemNote } from '$lib/shared';
	import ActionBar from '../ActionBar.svelte';
	import { STAGES } from '../job.svelte';
	import type { StageProps } from './props';

	let { store, view, sheet }: StageProps = $props();
	let statement = $state('Repaired as recorded, tested, and fit for service');
	let next = $state('');
	let reason = $state('');
	let problem = $state.raw<Problem | null>(null);

	const waiting = $derived(
		view.stages.filter((stage) => stage.status === 'open' && stage.stage !== 'release')
	);
	const mayNot = $derived(sheet.document.authorised_release && people.current && !people.current.may_release);
	const certificate = $derived(`/api/jobs/${view.job.id}/certificate.pdf`);
	const nameOf = (key: string) => STAGES.find((stage) => stage.key === key)?.name ?? key;

	async function sign() {
		problem = await store.record({ kind: 'released', statement, next_service: next || null });
	}

	async function reopen() {
		problem = await store.record({ kind: 'reopened', reason });
		if (!problem) reason = '';
	}
</script>

<SectionDrawing {sheet} {view} mode="built" />
<h1 class="my-2 text-3xl font-extrabold">Release</h1>
<div class="mb-3 grid gap-3 lg:grid-cols-2">
	<section class="panel" aria-labelledby="found-left">
		<h2 id="found-left" class="text-xl font-bold">As found and as left</h2>
		<table
			class="w-full text-left [&_td]:border-t [&_td]:border-base-300 [&_td]:p-1 [&_th]:border-t [&_th]:border-base-300 [&_th]:p-1"
		>
			<thead><tr><th>What</th><th>As found</th><th>As left</th></tr></thead>
			<tbody>
				{#each sheet.document.observations ?? [] as seen (seen.key)}
					<tr>
						<th class="font-normal">{seen.name}{seen.unit ? ` [${seen.unit}]` : ''}</th>
						{#each ['as_found', 'as_left'] as moment (moment)}
							{@const noted = view.observations.find(
								(one) => one.value.observation === seen.key && one.value.when === moment
							)}
							<td>{noted ? noted.value.value : 'not noted'}</td>
						{/each}
					</tr>
				{/each}
			</tbody>
		</table>
		<Findings findings={view.findings.filter((finding) => finding.code === 'reversed')} past />
		{#each Object.entries(view.skipped) as [stage, skipped] (stage)}
			<p class="mt-1 font-semibold text-warning">
				Passed over {nameOf(stage)}: {skipped.value.reason} ({skipped.who})
			</p>
		{/each}
	</section>
	<section class="panel" aria-labelledby="sign">
		{#if view.released}
			<h2 id="sign" class="text-xl font-bold text-success">Released by {view.released.who}</h2>
			<p>{view.released.value.statement}</p>
			{#if view.released.value.next_service}<p>Next service: {view.released.value.next_service}</p>{/if}
			<p class="faint my-2 text-sm break-all">Seal: {view.head}</p>
			<div class="flex flex-wrap gap-2">
				<a class="btn btn-primary" href={certificate} target="_blank" rel="noopener"
					><FileText size={20} aria-hidden="true" />Certificate</a
				>
				<a class="btn" href="/api/jobs/{view.job.id}/label.svg" target="_blank" rel="noopener"
					><QrCode size={20} aria-hidden="true" />Label</a
				>
			</div>
			<form
				class="mt-4 flex flex-wrap gap-2 border-t border-base-300 pt-3"
				onsubmit={(event) => {
					event.preventDefault();
					void reopen();
				}}
			>
				<input
					class="entry input min-w-52 flex-1"
					aria-label="Reason for reopening"
					placeholder="Reason for reopening"
					bind:value={reason}
				/>
				<button class="btn" disabled={!reason.trim()}>Reopen the job</button>
			</form>
		{:else}
			<h2 id="sign" class="text-xl font-bold">Sign</h2>
			{#if waiting.length}
				<p class="font-semibold text-warning">Not ready yet:</p>
				<ul class="mb-2 ml-5 list-disc">
					{#each waiting as stage (stage.stage)}
						<li>
							<a class="link" href="/jobs/{view.job.id}/{stage.stage}">{nameOf(stage.stage)}</a>: {stage
								.needs[0]?.text}
						</li>
					{/each}
				</ul>
			{/if}
			{#if sheet.document.authorised_release}
				<p class={mayNot ? 'font-semibold text-warning' : 'faint'}>
					This unit is released only by a named authorised person{mayNot
						? `; ${people.current?.name} is not one. Let one sign at the top of the screen.`
						: '.'}
				</p>
			{/if}
			<label class="mt-2 block font-semibold" for="statement">Statement</label>
			<textarea
				id="statement"
				class="textarea w-full text-[1.05rem]"
				rows="2"
				maxlength="600"
				bind:value={statement}></textarea>
			<label class="mt-2 block font-semibold" for="next">Next service</label>
			<input
				id="next"
				class="entry input w-full"
				maxlength="120"
				placeholder={sheet.document.service_interval ?? ''}
				bind:value={next}
			/>
			<p class="faint my-2 text-sm">
				Your name, {people.current?.name ?? '…'}, stands on the certificate. The maker's manual, local codes
				and licensed practice win.
			</p>
		{/if}
		<ProblemNote {problem} />
	</section>
</div>
<ActionBar {store} stage="release">
	{#if !view.released}
		<button class="btn btn-primary" disabled={waiting.length > 0 || Boolean(mayNot)} onclick={sign}
			>Sign and release</button
		>
	{/if}
</ActionBar>
