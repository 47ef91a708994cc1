<script lang="ts">
	import Check from '@lucide/svelte/icons/check';
	import type { TaskForm } from './form.svelte';

	interface Props {
		form: TaskForm;
		/** What the button says. */
		says: string;
		/** Whether it stops: what is marked as a stop is not passed. */
		stopped?: boolean;
		/** Whether it takes the focus. */
		focused?: boolean;
		/** The answer itself records: there is no button. */
		byTap?: boolean;
	}
	let { form, says, stopped = false, focused = false, byTap = false }: Props = $props();
	const focusWhenWanted = (node: HTMLElement) => {
		if (focused) node.focus();
	};
</script>

{#if byTap}
	<p class="faint" data-tap-records>Tap an answer: that records it.</p>
{:else}
	<div class="action-bar">
		<button
			class="btn btn-primary h-auto min-h-14 w-full py-2 text-lg"
			aria-busy={form.busy}
			aria-disabled={form.settling || stopped || undefined}
			{@attach focusWhenWanted}
		>
			<Check size={26} class="shrink-0" aria-hidden="true" />{says}
		</button>
	</div>
{/if}
