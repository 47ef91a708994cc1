<script lang="ts">
	import type { Schemas } from '$lib/api';
	import { Chart } from '$lib/chart';
	import { day, shortDay } from '$lib/shared';

	let { view }: { view: Schemas['UnitView'] } = $props();

	type Series = Schemas['SeriesOut'];
	const DAY = 86_400_000;
	/** As found a ring, as left filled, both over the days of their jobs. */
	const drawn = (series: Series) =>
		(['as_found', 'as_left'] as const).map((when) => ({
			points: series.points.map((point): [number, number | null] => [
				Date.parse(point.day) / DAY,
				point[when]
			]),
			line: true,
			mark: when === 'as_found' ? ('ring' as const) : ('dot' as const),
			colour: when === 'as_found' ? '--color-warning' : '--color-success'
		}));
	const dayAt = (value: number) => shortDay(new Date(value * DAY).toISOString());
</script>

{#if view.series.length}
	<section class="panel" aria-labelledby="figures">
		<h2 id="figures" class="text-2xl font-bold">As found and as left</h2>
		<p class="faint text-sm">○ as found, ● as left</p>
		<div class="grid gap-4 md:grid-cols-2">
			{#each view.series as series (series.key)}
				<figure>
					<figcaption class="font-semibold">{series.name}</figcaption>
					<Chart
						label="{series.name} over the years"
						across={{ unit: '', digits: 0, words: dayAt }}
						up={{ unit: series.unit, digits: 1 }}
						series={drawn(series)}
						height={150}
					/>
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
							{#each job.fitted as seal (seal)}<li>{seal}</li>{/each}
						</ul>
					</details>
				{/if}
			</li>
		{:else}<li class="faint">None yet.</li>{/each}
	</ul>
</section>
