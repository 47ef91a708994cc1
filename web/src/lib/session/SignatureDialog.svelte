<script lang="ts">
	import type { Problem } from '$lib/api';
	import { ProblemNote } from '$lib/shared';
	import PinPad from './PinPad.svelte';
	import { session } from './session.svelte';

	interface Props {
		/** What is being signed, in words. */
		what: string;
		sign: (pin: string) => Promise<Problem | null>;
		onDone: () => void;
	}
	let { what, sign, onDone }: Props = $props();

	let dialog = $state<HTMLDialogElement>();
	let problem = $state.raw<Problem | null>(null);
	let busy = $state(false);
	const wrongPin = $derived(problem && ['/problems/wrong-pin', '/problems/wait'].includes(problem.type));

	$effect(() => dialog?.showModal());

	async function enter(pin: string) {
		busy = true;
		problem = await sign(pin);
		busy = false;
		if (!problem) onDone();
	}
</script>

<dialog class="modal items-start overflow-y-auto" bind:this={dialog} aria-label="Sign" onclose={onDone}>
	<div class="modal-box mt-4 max-h-none max-w-md">
		<h2 class="text-2xl font-bold">Sign: {what}</h2>
		<p class="mb-2">In the name of <strong>{session.person?.name}</strong>.</p>
		{#if problem && !wrongPin}<ProblemNote {problem} />{/if}
		<PinPad
			label="Your PIN or password"
			enter="Sign"
			{busy}
			fault={wrongPin ? (problem?.detail ?? null) : null}
			onEnter={(pin) => void enter(pin)}
		/>
		<div class="modal-action"><button class="btn" onclick={() => dialog?.close()}>Back</button></div>
	</div>
</dialog>
