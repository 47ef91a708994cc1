<script lang="ts">
	import { api, ask, type Problem, type Schemas } from '$lib/api';
	import { CheckResult, emptyGroove, grooveBody, GrooveForm, isComplete } from '$lib/glands';
	import { faultAt, ProblemNote, shown, withUnit } from '$lib/shared';

	const SERIES = ['AS568', 'ISO 3601', 'JIS B 2401', 'metric'];
	let draft = $state(emptyGroove());
	let lengthUnit = $state('mm');
	let pressureUnit = $state('bar');
	let series = $state('AS568');
	let designation = $state('');
	let result = $state.raw<{
		check: Schemas['GlandCheckOut'];
		groove: Schemas['GrooveBody'];
		width: number;
	} | null>(null);
	let found = $state.raw<Schemas['GrooveSearchOut'] | null>(null);
	let problem = $state.raw<Problem | null>(null);
	const groove = $derived(isComplete(draft) ? grooveBody(draft, lengthUnit, pressureUnit) : null);

	$effect(() => {
		if (!groove) {
			found = null;
			result = null;
			return;
		}
		const body = groove;
		const ring = designation.trim() ? { series, designation: designation.trim() } : null;
		let current = true;
		const wait = setTimeout(async () => {
			const search = await ask(api.POST('/api/glands/rings', { body: { ...body, limit: 8 } }));
			if (!current) return;
			found = search.data;
			problem = search.problem;
			const first = search.data?.rings[0];
			const wanted = ring ?? (first ? { series: first.series, designation: first.designation } : null);
			if (!wanted || search.problem) {
				result = null;
				return;
			}
			const [check, width] = await Promise.all([
				ask(api.POST('/api/glands/check', { body: { ...body, ring: wanted } })),
				ask(api.POST('/api/quantities/read', { body: { text: widthText(body), dimension: 'length' } }))
			]);
			if (!current) return;
			problem = check.problem;
			result = check.data && width.data ? { check: check.data, groove: body, width: width.data.value } : null;
		}, 120);
		return () => {
			current = false;
			clearTimeout(wait);
		};
	});

	/** The groove width without its tolerance, for the drawing. */
	function widthText(body: Schemas['GrooveBody']): string {
		return withUnit(body.groove_width.replace(/\s*(±|\+|-\s*\d).*$/, ''), lengthUnit);
	}

	function take(ring: { series: string; designation: string }) {
		series = ring.series;
		designation = ring.designation;
	}
	const shownName = $derived(
		designation.trim()
			? `${series} ${designation}`
			: found?.rings[0]
				? `${found.rings[0].series} ${found.rings[0].designation}`
				: ''
	);
</script>

<svelte:head><title>Groove check · Iron Kettle</title></svelte:head>

<main class="mx-auto w-full max-w-7xl flex-1 p-4">
	<h1 class="mb-2 text-4xl font-extrabold">Groove check</h1>
	<div class="grid items-start gap-4 lg:grid-cols-2">
		<div>
			<section class="panel" aria-label="Groove" data-form>
				<GrooveForm bind:draft bind:lengthUnit bind:pressureUnit {problem} focused />
				<div class="mt-2 flex flex-wrap items-end gap-3">
					<label class="block">
						<span class="block font-semibold">Series</span>
						<select class="entry select w-40" bind:value={series}>
							{#each SERIES as one (one)}<option>{one}</option>{/each}
						</select>
					</label>
					<label class="block flex-1">
						<span class="block font-semibold"
							>Ring size <span class="faint font-normal">(empty: the best that fits)</span></span
						>
						<input class="entry input w-full" autocomplete="off" data-entry bind:value={designation} />
					</label>
				</div>
				{#if problem && !['bore', 'rod', 'groove_depth', 'groove_diameter', 'groove_width', 'diametral_clearance', 'pressure', 'temperature'].some( (field) => faultAt(problem, field) )}
					<ProblemNote {problem} />
				{/if}
			</section>
			{#if found}
				<section class="panel mt-3" aria-labelledby="fits">
					<h2 id="fits" class="text-2xl font-bold">Sizes that fit, best first</h2>
					<ul>
						{#each found.rings as ring (ring.series + ring.designation)}
							<li class="flex items-center gap-3 border-t border-base-300 py-1">
								<span class="flex-1">
									<strong>{ring.series} {ring.designation}</strong>
									<span class="faint">{shown(ring.inside_diameter_mm)} × {shown(ring.section_mm)} mm</span>
									<span class="block text-sm">
										squeeze {shown(ring.check.squeeze_pct.nominal, 1)} %, stretch {shown(
											ring.check.stretch_pct.nominal,
											1
										)} %, fill
										{shown(ring.check.fill_pct.nominal, 0)} %{ring.check.backup.needed &&
										ring.check.verdict === 'reject'
											? '; needs a backup ring'
											: ''}
									</span>
								</span>
								<button class="btn" onclick={() => take(ring)}>Look at it</button>
							</li>
						{:else}
							<li>No size of the tables fits this groove.</li>
						{/each}
					</ul>
					<details class="mt-2">
						<summary class="min-h-8 cursor-pointer">Near sizes that do not fit, and why</summary>
						<ul class="ml-5 list-disc text-sm">
							{#each found.near as ring (ring.series + ring.designation)}
								<li><strong>{ring.series} {ring.designation}</strong>: {ring.reasons.join('; ')}</li>
							{/each}
						</ul>
					</details>
				</section>
			{/if}
		</div>
		{#if result}
			<CheckResult {...result} name={shownName} />
		{:else}
			<p class="panel faint">Give the three dimensions of the groove; the result appears here as you type.</p>
		{/if}
	</div>
</main>
