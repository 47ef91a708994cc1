<script lang="ts">
	import Check from '@lucide/svelte/icons/check';
	import Circle from '@lucide/svelte/icons/circle';
	import CircleSlash from '@lucide/svelte/icons/circle-slash';
	import { Fold } from '$lib/shared';
	import type { Move } from './job.svelte';

	interface Props {
		title: string;
		moves: Move[];
		open?: boolean;
		/** Moves whose entries wait on this device. */
		waits?: Set<string>;
		onPick: (key: string) => void;
	}
	let { title, moves, open = false, waits, onPick }: Props = $props();
	const when = (text: string) => new Date(text).toLocaleTimeString('en-GB', { timeStyle: 'short' });
</script>

{#if moves.length}
	<Fold class="panel p-2" title="{title} ({moves.length})" unfold={open}>
		<ul>
			{#each moves as move (move.key)}
				<li>
					<button
						class="flex min-h-11 w-full items-start gap-2 rounded px-1 py-1 text-left hover:bg-base-300"
						onclick={() => onPick(move.key)}
					>
						{#if move.status === 'done'}<Check
								size={20}
								class="mt-0.5 shrink-0 text-success"
								aria-label="done"
							/>
						{:else if move.status === 'skipped'}<CircleSlash
								size={20}
								class="mt-0.5 shrink-0 text-warning"
								aria-label="passed over"
							/>
						{:else}<Circle
								size={20}
								class="faint mt-0.5 shrink-0"
								aria-label={move.status === 'blocked' ? 'not yet' : 'to do'}
							/>{/if}
						<span class="min-w-0 flex-1">
							{#if waits?.has(move.key)}
								<span class="block">{move.text}</span>
								<span class="block text-sm text-warning">recorded here, not sent yet</span>
							{:else if move.recorded}
								<span class="block first-letter:uppercase">{move.recorded.words}</span>
								<span class="faint block text-sm"
									>{move.recorded.who}, {when(move.recorded.when)}{move.recorded.signed
										? `, ${move.recorded.signed}`
										: ''}</span
								>
							{:else}
								<span class={['block', move.status === 'blocked' && 'faint']}>{move.text}</span>
							{/if}
						</span>
					</button>
				</li>
			{/each}
		</ul>
	</Fold>
{/if}
