<script lang="ts">
	import type { Schemas } from '$lib/api';
	import { day } from '$lib/shared';

	let { view }: { view: Schemas['UnitView'] } = $props();

	type Series = Schemas['SeriesOut'];
	const WIDE = 420;
	const HIGH = 120;
	const EDGE = 14;

	/** Places of the marks of one figure: days along, values up, as found a ring and as left a filled square. */
	function drawn(series: Series) {
		const days = series.points.map((point) => Date.parse(point.day));
		const values = series.points.flatMap((point) =>
			[point.as_found, point.as_left].filter((value) => value !== null)
		);
		const [first, last] = [Math.min(...days), Math.max(...days)];
		const [low, high] = [Math.min(...values), Math.max(...values)];
		const x = (at: number) => EDGE + ((at - first) / (last - first || 1)) * (WIDE - 2 * EDGE);
		const y = (value: number) => HIGH - EDGE - ((value - low) / (high - low || 1)) * (HIGH - 2 * EDGE);
		return series.points.map((point, index) => ({
			...point,
			x: x(days[index] ?? first),
			found: point.as_found === null ? null : y(point.as_found),
			left: point.as_left === null ? null : y(point.as_left)
		}));
	}
	const path = (marks: { x: number; y: number | null }[]) =>
		marks
			.filter((mark) => mark.y !== null)
			.map((mark, index) => `${index ? 'L' : 'M'} ${mark.x} ${mark.y}`)
			.join(' ');
</script>

{#if view.series.length}
	<section class="panel" aria-labelledby="figures">
		<h2 id="figures" class="text-2xl font-bold">As found and as left</h2>
		<p class="faint text-sm">○ as found, ■ as left</p>
		<div class="grid gap-4 md:grid-cols-2">
			{#each view.series as series (series.key)}
				{@const marks = drawn(series)}
				<figure>
					<figcaption class="font-semibold">{series.name}</figcaption>
					<svg
						viewBox="0 0 {WIDE} {HIGH}"
						class="w-full"
						role="img"
						aria-label="{series.name} over the years"
					>
						<rect x="0" y="0" width={WIDE} height={HIGH} class="fill-base-300" />
						<path d={path(marks.map((m) => ({ x: m.x, y: m.found })))} class="found" />
						<path d={path(marks.map((m) => ({ x: m.x, y: m.left })))} class="left" />
						{#each marks as mark (mark.number)}
							{#if mark.found !== null}<circle cx={mark.x} cy={mark.found} r="5" class="found"
									><title>Job {mark.number}, {day(mark.day)}, as found {mark.found_words}</title></circle
								>{/if}
							{#if mark.left !== null}<rect x={mark.x - 4} y={mark.left - 4} width="8" height="8" class="mark"
									><title>Job {mark.number}, {day(mark.day)}, as left {mark.left_words}</title></rect
								>{/if}
						{/each}
					</svg>
					<table class="w-full text-sm">
						<thead
							><tr
								><th class="text-left">Day</th><th class="text-left">As found</th><th class="text-left"
									>As left</th
								></tr
							></thead
						>
						<tbody>
							{#each series.points as point (point.number)}
								<tr>
									<td>{day(point.day)}</td>
									<td>{point.found_words ?? '–'}</td>
									<td>{point.left_words ?? '–'}</td>
								</tr>
							{/each}
						</tbody>
					</table>
				</figure>
			{/each}
		</div>
	</section>
{/if}
<section class="panel" aria-labelledby="jobs">
	<h2 id="jobs" class="text-2xl font-bold">Jobs on this unit</h2>
	<ul>
		{#each view.jobs as job (job.number)}
			<li class="border-t border-base-300 py-2">
				<p>
					<a class="link font-semibold" href="/jobs/{job.number}">Job {job.number}</a>,
					{day(job.opened_at)}:
					<strong
						>{job.ended || (job.released ? 'released' : 'open')}{job.quick_service
							? `, service: ${job.quick_service}`
							: ''}</strong
					>
				</p>
				{#if !job.quick_service}<p>{job.complaint}</p>{/if}
				{#each job.causes as cause (cause)}<p class="text-warning">Failed: {cause}</p>{/each}
				{#if job.fitted.length}
					<details>
						<summary class="min-h-11 cursor-pointer content-center">Fitted: {job.fitted.length}</summary>
						<ul class="ml-5 list-disc">
							{#each job.fitted as one (one)}<li>{one}</li>{/each}
						</ul>
					</details>
				{/if}
			</li>
		{:else}<li class="faint">None yet.</li>{/each}
	</ul>
</section>

<style>
	.found {
		fill: none;
		stroke: var(--color-warning);
		stroke-width: 2;
	}
	.left {
		fill: none;
		stroke: var(--color-success);
		stroke-width: 2;
	}
	.mark {
		fill: var(--color-success);
	}
</style>
