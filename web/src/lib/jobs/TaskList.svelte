<script lang="ts">
	import Check from '@lucide/svelte/icons/check';
	import Circle from '@lucide/svelte/icons/circle';
	import CircleSlash from '@lucide/svelte/icons/circle-slash';
	import { Fold, time } from '$lib/shared';
	import type { Task } from './job.svelte';

	interface Props {
		title: string;
		tasks: Task[];
		open?: boolean;
		/** Tasks whose entries wait on this device. */
		waits?: Set<string>;
		onPick: (key: string) => unknown;
	}
	let { title, tasks, open = false, waits, onPick }: Props = $props();
</script>

{#if tasks.length}
	<Fold class="panel p-2" title="{title} ({tasks.length})" unfold={open}>
		<ul>
			{#each tasks as task (task.key)}
				<li>
					<button
						class="flex min-h-11 w-full items-start gap-2 rounded px-1 py-1 text-left hover:bg-base-300"
						onclick={() => onPick(task.key)}
					>
						{#if task.status === 'done'}<Check
								size={20}
								class="mt-0.5 shrink-0 text-success"
								aria-label="done"
							/>
						{:else if task.status === 'skipped'}<CircleSlash
								size={20}
								class="mt-0.5 shrink-0 text-warning"
								aria-label="skipped"
							/>
						{:else}<Circle
								size={20}
								class="faint mt-0.5 shrink-0"
								aria-label={task.status === 'blocked' ? 'not yet' : 'to do'}
							/>{/if}
						<span class="min-w-0 flex-1">
							{#if waits?.has(task.key)}
								<span class="block">{task.text}</span>
								<span class="block text-sm text-warning">recorded here, not sent yet</span>
							{:else if task.recorded}
								<span class="block first-letter:uppercase">{task.recorded.words}</span>
								<span class="faint block text-sm"
									>{task.recorded.who}, {time(task.recorded.when)}{task.recorded.signed
										? `, ${task.recorded.signed}`
										: ''}</span
								>
							{:else}
								<span class={['block', task.status === 'blocked' && 'faint']}>{task.text}</span>
							{/if}
						</span>
					</button>
				</li>
			{/each}
		</ul>
	</Fold>
{/if}
