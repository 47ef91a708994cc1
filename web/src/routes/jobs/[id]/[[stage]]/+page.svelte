<script lang="ts">
	import { goto } from '$app/navigation';
	import { page } from '$app/state';
	import { JobStore, STAGES, type StageName } from '$lib/jobs';
	import JobHeader from '$lib/jobs/JobHeader.svelte';
	import StageRail from '$lib/jobs/StageRail.svelte';
	import IntakeStage from '$lib/jobs/stages/IntakeStage.svelte';
	import KitStage from '$lib/jobs/stages/KitStage.svelte';
	import MatchStage from '$lib/jobs/stages/MatchStage.svelte';
	import RebuildStage from '$lib/jobs/stages/RebuildStage.svelte';
	import ReleaseStage from '$lib/jobs/stages/ReleaseStage.svelte';
	import SafeStage from '$lib/jobs/stages/SafeStage.svelte';
	import StripStage from '$lib/jobs/stages/StripStage.svelte';
	import TestStage from '$lib/jobs/stages/TestStage.svelte';
	import TightenStage from '$lib/jobs/stages/TightenStage.svelte';
	import { ProblemNote } from '$lib/shared';

	const screens = {
		intake: IntakeStage,
		safe: SafeStage,
		strip: StripStage,
		match: MatchStage,
		kit: KitStage,
		rebuild: RebuildStage,
		tighten: TightenStage,
		test: TestStage,
		release: ReleaseStage
	};
	const id = $derived(page.params.id ?? '');
	const store = $derived(new JobStore(id));
	const wanted = $derived(STAGES.find((stage) => stage.key === page.params.stage)?.key);
	const current = $derived<StageName>(wanted ?? 'intake');
	const Screen = $derived(screens[current]);
	const stageTitle = $derived(STAGES.find((stage) => stage.key === current)?.name ?? '');

	$effect(() => store.follow());
	$effect(() => {
		// Without a stage in the address the job opens where it stands, and stays there while it is worked.
		const stage = store.view?.job.stage;
		if (!wanted && stage) void goto(`/jobs/${id}/${stage}`, { replaceState: true });
	});
</script>

<svelte:head><title>{stageTitle} · job {store.view?.job.number ?? ''} · Iron Kettle</title></svelte:head>

{#if store.view && store.sheet && wanted}
	<JobHeader {store} />
	<div
		class="grid flex-1 grid-cols-1 grid-rows-[auto_1fr] gap-x-4 px-4 lg:grid-cols-[11.5rem_minmax(0,1fr)] lg:grid-rows-1"
	>
		<div class="min-w-0 pt-2 lg:pt-3"><StageRail view={store.view} {current} /></div>
		<main class="flex min-w-0 flex-col pt-3">
			<ProblemNote problem={store.problem} />
			{#key current}
				<Screen {store} view={store.view} sheet={store.sheet} />
			{/key}
		</main>
	</div>
{:else}
	<main class="p-4">
		<ProblemNote problem={store.problem} />
		{#if !store.problem}<p class="panel">Opening the job …</p>{/if}
	</main>
{/if}
