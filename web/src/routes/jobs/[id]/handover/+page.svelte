<script lang="ts">
	import Printer from '@lucide/svelte/icons/printer';
	import { page } from '$app/state';
	import { api, ask, type Problem, type Schemas } from '$lib/api';
	import { MarkedPhoto } from '$lib/photos';
	import { moment, ProblemNote } from '$lib/shared';

	const reference = $derived(page.params.id ?? '');
	let handover = $state.raw<Schemas['HandOverOut'] | null>(null);
	let problem = $state.raw<Problem | null>(null);

	$effect(() => {
		void ask(api.GET('/api/jobs/{reference}/handover', { params: { path: { reference } } })).then(
			(answer) => {
				handover = (answer.data as Schemas['HandOverOut'] | null) ?? handover;
				problem = answer.problem;
			}
		);
	});
	const parts = $derived(
		handover
			? ([
					['Waits for', handover.waits],
					['Parts removed, and where they are', handover.off],
					['As found', handover.lay],
					['Decided', handover.decided],
					['Assumed, not known', handover.assumed],
					['Open points and notes', handover.open_ends]
				] as const)
			: []
	);
</script>

<svelte:head><title>Hand-over · job {handover?.job.number ?? ''} · Iron Kettle</title></svelte:head>

<main class="mx-auto w-full max-w-7xl flex-1 p-4">
	<ProblemNote {problem} />
	{#if handover}
		<div class="mb-2 flex flex-wrap items-center gap-3">
			<h1 class="min-w-0 flex-1 text-3xl font-extrabold">
				{handover.job.unit}
				<span class="faint text-xl">· job {handover.job.number} · {handover.job.serial}</span>
			</h1>
			<button class="btn print:hidden" onclick={() => print()}
				><Printer size={20} aria-hidden="true" />Print</button
			>
		</div>
		<p class="faint">
			{handover.job.customer}: {handover.job.complaint}. Last worked on by: {handover.job.touched_by},
			{moment(handover.job.touched_at)}
		</p>
		<a class="panel my-3 block border-l-4 border-l-primary no-underline" href="/jobs/{handover.job.number}">
			<span class="faint">Next, in {handover.job.stage_word}:</span>
			<strong class="block text-2xl">{handover.next ?? 'nothing: the job is complete'}</strong>
			{#if handover.why}<span class="faint">{handover.why}</span>{/if}
		</a>
		<div class="columns-1 gap-3 md:columns-2 xl:columns-3 print:columns-2">
			{#each parts as [name, lines] (name)}
				{#if lines.length}
					<section class="panel mb-3 break-inside-avoid p-3" aria-label={name}>
						<h2 class="text-lg font-bold">{name}</h2>
						<ul>
							{#each lines as line, place (place)}
								<li class="border-t border-base-300 py-1">
									<span
										class={[
											'inline-block first-letter:uppercase',
											line.caution && 'font-semibold text-warning'
										]}>{line.words}</span
									>
									{#if line.who}<span class="faint text-sm"> {line.who}</span>{/if}
								</li>
							{/each}
						</ul>
					</section>
				{/if}
			{/each}
			{#if handover.leaks.length}
				<section class="panel mb-3 break-inside-avoid p-3" aria-label="Leak paths">
					<h2 class="text-lg font-bold">Leak paths</h2>
					{#each handover.leaks as leak (leak.words)}<p class="first-letter:uppercase">{leak.words}</p>{/each}
				</section>
			{/if}
			{#if handover.photos.length}
				<section class="panel mb-3 break-inside-avoid p-3" aria-label="Photos">
					<h2 class="text-lg font-bold">Photos</h2>
					<div class="grid grid-cols-2 gap-2">
						{#each handover.photos as photo (photo.id)}
							<figure>
								<MarkedPhoto photo={{ ...photo, job: handover.job.id }} small />
								<figcaption class="faint text-sm">{photo.time ?? ''} {photo.words}</figcaption>
							</figure>
						{/each}
					</div>
				</section>
			{/if}
		</div>
	{/if}
</main>
