<script lang="ts">
	import CircleX from '@lucide/svelte/icons/circle-x';
	import type { Problem } from '$lib/api';

	interface Props {
		problem: Problem | null;
		/** Whether each fault is told with its place in the document or file it was found in. */
		places?: boolean;
	}
	let { problem, places = false }: Props = $props();
	const place = (field: string) => field.replace(/^csv\.(line \d+)\.?/, '$1, ').replace(/, $/, '');
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
								{#if places && fault.field}<strong>{place(fault.field)}:</strong>{/if}
								{fault.message}{fault.accepts.length ? ` (fits: ${fault.accepts.join(', ')})` : ''}
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
