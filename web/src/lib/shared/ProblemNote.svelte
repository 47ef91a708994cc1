<script lang="ts">
	import CircleX from '@lucide/svelte/icons/circle-x';
	import type { Problem } from '$lib/api';

	let { problem }: { problem: Problem | null } = $props();
</script>

<div aria-live="assertive">
	{#if problem}
		<div class="alert alert-error my-2 items-start" role="alert">
			<CircleX size={22} aria-hidden="true" />
			<div>
				<strong>{problem.title}.</strong>
				{#if problem.errors.length}
					<ul>
						{#each problem.errors as fault (fault.field + fault.message)}
							<li>
								{fault.message}{fault.accepts.length ? ` (fits: ${fault.accepts.join(', ')})` : ''}
								<span class="text-sm">[{fault.field}]</span>
							</li>
						{/each}
					</ul>
				{:else}
					{problem.detail}
				{/if}
			</div>
		</div>
	{/if}
</div>
