<script lang="ts">
	import { day } from '$lib/shared';
	import type { Schemas } from '$lib/api';

	let { earlier }: { earlier: Schemas['EarlierOut'][] } = $props();
</script>

<section class="panel" aria-labelledby="earlier">
	<h2 id="earlier" class="text-xl font-bold">Earlier on this unit</h2>
	<ul>
		{#each earlier as job (job.number)}
			<li class="border-t border-base-300 py-1">
				<p>
					<a class="link font-semibold" href="/jobs/{job.number}">Job {job.number}</a>,
					{day(job.opened_at)}{job.ended ? `, ${job.ended}` : job.released ? '' : ', still open'}: {job.complaint}
				</p>
				{#each job.causes as cause (cause)}
					<p class={job.again ? 'font-semibold text-warning' : 'faint'}>
						{job.again ? 'Again: ' : ''}{cause}
					</p>
				{/each}
			</li>
		{/each}
	</ul>
</section>
