<script lang="ts">
	import { tick } from 'svelte';
	import { goto } from '$app/navigation';
	import { page } from '$app/state';
	import { JobStore, type Task } from '$lib/jobs';
	import Earlier from '$lib/jobs/Earlier.svelte';
	import StageRail from '$lib/jobs/StageRail.svelte';
	import JobDrawing from '$lib/jobs/JobDrawing.svelte';
	import JobHeader from '$lib/jobs/JobHeader.svelte';
	import TaskCard from '$lib/jobs/TaskCard.svelte';
	import TaskList from '$lib/jobs/TaskList.svelte';
	import Tray from '$lib/jobs/Tray.svelte';
	import Released from '$lib/jobs/Released.svelte';
	import Timers from '$lib/jobs/Timers.svelte';
	import { provideDrawingPlace } from '$lib/jobs/place.svelte';
	import { device, Held } from '$lib/outbox';
	import { Photos } from '$lib/photos';
	import { ProblemNote } from '$lib/shared';
	import { QuickServiceBanner } from '$lib/units';

	const COMING = 6;
	const reference = $derived(page.params.id ?? '');
	const wanted = $derived(page.params.stage ?? null);
	const store = $derived(new JobStore(reference));
	const view = $derived(store.view);
	const place = provideDrawingPlace();
	/** The task that the address names: what was picked stays in hand through a reload, and its address can be sent on. */
	const named = $derived(page.url.searchParams.get('task'));
	const picked = $derived(view?.tasks.find((task) => task.key === named) ?? null);
	/** Set once something was done here: from then on the next task takes the focus. */
	let worked = $state(false);

	const waits = $derived(store.waiting);
	const over = (task: Task) => task.status === 'done' || task.status === 'skipped' || waits.has(task.key);
	/** While entries wait on this device, the list goes on in its order: what stands first is next. */
	const ahead = $derived(waits.size ? (view?.tasks.find((task) => !over(task)) ?? null) : null);
	const next = $derived(ahead ?? view?.tasks.find((task) => task.status === 'next') ?? null);
	const stage = $derived(
		wanted ?? picked?.stage ?? (view?.job.released ? 'release' : (next?.stage ?? 'release'))
	);
	const own = $derived(view?.tasks.filter((task) => task.stage === stage) ?? []);
	const here = $derived(view?.stages.find((listed) => listed.key === stage) ?? null);
	/** What is worked here: what was picked, else what the job says; of a stage that waits for others only where it was asked for. */
	const current = $derived(own.find((task) => task.key === here?.current && !over(task)) ?? null);
	const hand = $derived(
		store.card?.[0] ??
			picked ??
			(ahead?.stage === stage ? ahead : null) ??
			(wanted || current?.status !== 'blocked' ? current : null)
	);
	const done = $derived(own.filter(over));
	const coming = $derived(own.filter((task) => task !== hand && !done.includes(task)));
	const tools = $derived(here?.tools ?? []);
	const title = $derived(here?.word ?? '');
	const panels = $derived(here?.panels ?? []);

	const hasRun = (hold: { test: string; when: string }) =>
		view?.runs.some((run) => run.test === hold.test && run.when === hold.when) ?? false;
	/** Sizes are chosen on the whole width, with the drawing among them; so is a hold with its trace. */
	const wide = $derived(
		hand !== null &&
			hand.status !== 'blocked' &&
			(hand.screen.kind === 'size' || (hand.screen.kind === 'hold' && hasRun(hand.screen)))
	);

	$effect(() => store.follow());
	$effect(() => {
		// A screen that was left shows no refusal any more: those stay on the device.
		void stage;
		return () => device.leave();
	});

	function toHand(event: MouseEvent) {
		event.preventDefault();
		document.getElementById('hand')?.focus();
	}

	const STAY = { keepFocus: true, noScroll: true };
	const pick = (key: string) => goto(`?task=${encodeURIComponent(key)}`, STAY);
	/** After an entry: on to what is next, wherever it stands. */
	async function onDone() {
		worked = true;
		store.problem = null;
		const elsewhere = wanted && next && next.stage !== wanted;
		if (named !== null || elsewhere)
			await goto(`/jobs/${reference}${wanted && !elsewhere ? `/${wanted}` : ''}`, {
				...STAY,
				replaceState: true
			});
		await tick();
		const node = document.getElementById('hand');
		const top = node?.getBoundingClientRect().top ?? 0;
		// The next task is read from its beginning, wherever the one before was left.
		if (top < 0 || top > window.innerHeight / 3) node?.scrollIntoView({ block: 'start' });
	}
</script>

<svelte:head><title>{title} · job {view?.job.number ?? ''} · Iron Kettle</title></svelte:head>

{#if view}
	<nav aria-label="Skip">
		<a href="#hand" class="sr-only focus:not-sr-only focus:p-2" onclick={toHand}>Skip to the current task</a>
	</nav>
	<JobHeader {store} />
	<div
		class="grid flex-1 grid-cols-1 grid-rows-[auto_1fr] gap-x-4 px-2 sm:px-4 lg:grid-cols-[11.5rem_minmax(0,1fr)] lg:grid-rows-1"
	>
		<div class="min-w-0 sm:pt-2 lg:pt-3"><StageRail {view} current={stage} /></div>
		<main class="min-w-0 py-1 sm:py-3">
			<ProblemNote problem={store.problem} />
			{#if named !== null && !picked}<p class="panel mb-2 text-warning" role="alert">
					This job has no task “{named}”; the next one is shown.
				</p>{/if}
			<Held job={view.job.id} />
			<div aria-live="polite">
				{#each store.meanwhile as entry (entry.who + entry.words)}
					<p class="panel mb-2 border-l-4 border-l-accent py-1">
						Meanwhile {entry.who}: {entry.words}
						<button class="btn btn-ghost" onclick={() => (store.meanwhile = [])}>Seen</button>
					</p>
				{/each}
			</div>
			<QuickServiceBanner {store} {view} />
			<Timers {view} current={hand?.key ?? null} />
			<div
				class={[
					'grid items-start gap-3',
					!wide && 'xl:grid-cols-[minmax(0,1fr)_27rem] xl:grid-rows-[auto_1fr]'
				]}
			>
				<div class={['min-w-0', !wide && 'xl:col-start-2']} id="hand" tabindex="-1">
					{#if view.job.released && stage === 'release'}
						<Released {store} {view} />
					{:else if hand}
						<TaskCard
							{store}
							{view}
							task={hand}
							focused={worked || view.quick_service !== null}
							ahead={hand === ahead}
							{onDone}
						/>
					{:else}
						<section class="panel">
							<h1 class="text-2xl font-extrabold first-letter:uppercase">{title}</h1>
							<p class="font-semibold text-success" role="status">This stage is complete.</p>
							{#if next}<a class="btn btn-primary mt-2" href="/jobs/{reference}">Go on: {next.text}</a>{/if}
						</section>
					{/if}
				</div>
				{#if !wide}<div
						class={[
							'min-w-0 xl:order-none xl:col-start-1 xl:row-span-2 xl:row-start-1',
							// What is worked at is seen beside its fields, or above them.
							place.shows && 'order-first'
						]}
					>
						{#if place.shows}{@render place.shows()}{:else}<JobDrawing {store} {view} task={hand} />{/if}
					</div>{/if}
				<div class={['min-w-0 space-y-3', !wide && 'xl:col-start-2']}>
					{#if tools.length}
						<details class="panel p-2">
							<summary class="min-h-11 cursor-pointer content-center font-semibold"
								>Tools and materials ({tools.length})</summary
							>
							<ul class="ml-5 list-disc">
								{#each tools as tool (tool)}<li>{tool}</li>{/each}
							</ul>
						</details>
					{/if}
					{#if view.causes.length && panels.includes('wrong')}
						<section class="panel border-l-4 border-l-warning" aria-label="What was found wrong">
							{#each [...view.causes, ...view.leaks.map((leak) => leak.words)] as cause (cause)}<p
									class="font-semibold first-letter:uppercase"
								>
									{cause}
								</p>{/each}
						</section>
					{/if}
					{#if view.suspects.length && panels.includes('suspects')}
						<section class="panel" aria-label="Places to look at for the leak">
							<h2 class="text-xl font-bold">Suspects, nearest first</h2>
							<ol class="ml-5 list-decimal">
								{#each view.suspects as suspect (suspect.station)}
									<li>
										<strong>{suspect.name}</strong>: {suspect.look}
										<span class="faint">(from {suspect.source})</span>
									</li>
								{/each}
							</ol>
						</section>
					{/if}
					{#if view.tray.length && panels.includes('tray')}<Tray {store} {view} />{/if}
					{#if view.earlier.length && panels.includes('earlier')}
						<Earlier earlier={view.earlier} />
					{/if}
					{#if !view.job.released || view.photos.length}
						<Photos {store} {view} about={hand?.key ?? null} wanted={hand?.photo ?? false} />
					{/if}
					<TaskList
						title="Coming in this stage"
						tasks={coming.slice(0, COMING)}
						open={coming.length > 0}
						onPick={pick}
					/>
					<TaskList title="Done in this stage" tasks={done} {waits} open={!hand} onPick={pick} />
				</div>
			</div>
		</main>
	</div>
{:else}
	<main class="p-4">
		<ProblemNote problem={store.problem} />
		{#if !store.problem}<p class="panel">Opening the job …</p>{/if}
	</main>
{/if}
