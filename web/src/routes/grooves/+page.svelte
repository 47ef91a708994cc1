<script lang="ts">
	import { api, ask, type Problem, type Schemas } from '$lib/api';
	import { CheckResult, theGroove, GrooveForm } from '$lib/glands';
	import { sizeName } from '$lib/rings';
	import { asTyped, faultAt, ProblemNote } from '$lib/shared';
	import FittingSizes from './FittingSizes.svelte';

	const grooveDesk = theGroove();

	const SERIES = ['AS568', 'ISO 3601', 'JIS B 2401', 'metric'];
	const FIELDS =
		'bore rod groove_depth groove_diameter groove_width diametral_clearance pressure temperature wall'.split(
			' '
		);
	let series = $state('AS568');
	let designation = $state('');
	let result = $state.raw<Result | null>(null);
	let found = $state.raw<Schemas['GrooveSearchOut'] | null>(null);
	let problem = $state.raw<Problem | null>(null);
	const groove = $derived(grooveDesk.body);
	const atAField = $derived(FIELDS.some((field) => faultAt(problem, field)));

	type Result = { check: Schemas['GlandCheckOut']; groove: Schemas['GrooveBody']; name: string };

	/** The sizes that fit a groove, and one ring in it: the one named, else the best. */
	async function look(body: Schemas['GrooveBody'], ring: { series: string; designation: string } | null) {
		const search = await ask(api.POST('/api/glands/rings', { body: { ...body, limit: 8 } }));
		const first = search.data?.rings[0];
		let result: Result | null = null;
		let fault = search.problem;
		if (ring && search.data) {
			const check = await ask(api.POST('/api/glands/check', { body: { ...body, ring } }));
			fault = check.problem;
			if (check.data) result = { check: check.data, groove: body, name: sizeName(ring) };
		} else if (first) {
			result = { check: first.check, groove: body, name: sizeName(first) };
		}
		return { found: search.data, result, problem: fault };
	}

	$effect(() => {
		if (!groove) {
			found = null;
			result = null;
			return;
		}
		const body = groove;
		const ring = designation.trim() ? { series, designation: designation.trim() } : null;
		return asTyped(
			() => look(body, ring),
			(seen) => ({ found, result, problem } = seen)
		);
	});

	$effect(() => grooveDesk.save());

	function forget() {
		grooveDesk.clear();
		designation = '';
	}

	function take(ring: { series: string; designation: string }) {
		series = ring.series;
		designation = ring.designation;
	}
</script>

<svelte:head><title>Groove check · Iron Kettle</title></svelte:head>

<main class="mx-auto w-full max-w-7xl flex-1 p-4 pt-2">
	<h1 class="sr-only">Groove check</h1>
	<div class="grid items-start gap-4 lg:grid-cols-2">
		<div class="lg:col-start-1">
			<section class="panel" aria-label="Groove" data-form>
				<GrooveForm
					bind:draft={grooveDesk.draft}
					bind:lengthUnit={grooveDesk.units.length}
					bind:pressureUnit={grooveDesk.units.pressure}
					{problem}
					focused
				/>
				<div class="mt-2 flex flex-wrap items-end gap-3">
					<label class="block">
						<span class="block text-sm font-semibold">Series</span>
						<select class="entry select w-40" bind:value={series}>
							{#each SERIES as line (line)}<option>{line}</option>{/each}
						</select>
					</label>
					<label class="block flex-1">
						<span class="block text-sm font-semibold"
							>Ring size <span class="faint font-normal">(empty: the best that fits)</span></span
						>
						<input class="entry input w-full" autocomplete="off" data-entry bind:value={designation} />
					</label>
					<button type="button" class="btn" onclick={forget}>Next groove</button>
				</div>
				{#if problem && !atAField}<ProblemNote {problem} />{/if}
			</section>
		</div>
		<div class="lg:col-start-2 lg:row-span-2 lg:row-start-1">
			{#if result}
				<CheckResult {...result} />
			{:else}
				<p class="panel faint">
					{found && !problem
						? 'No tabled size fits this groove. Enter a size to see why.'
						: 'Enter the three dimensions of the groove; the result appears here as you type.'}
				</p>
			{/if}
		</div>
		{#if found}<div class="lg:col-start-1"><FittingSizes {found} onTake={take} /></div>{/if}
	</div>
</main>
