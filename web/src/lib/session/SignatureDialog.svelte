<script lang="ts">
	import type { Problem } from '$lib/api';
	import { ProblemNote } from '$lib/shared';
	import { untrack } from 'svelte';
	import PinPad from './PinPad.svelte';
	import { session } from './session.svelte';
	import { Signature } from './signature.svelte';

	interface Props {
		/** What is being signed, in words. */
		what: string;
		sign: (pin: string) => Promise<Problem | null>;
		onDone: () => void;
	}
	let { what, sign, onDone }: Props = $props();

	let dialog = $state<HTMLDialogElement>();
	const signature = untrack(() => new Signature(sign, onDone));

	$effect(() => dialog?.showModal());
</script>

<dialog class="modal items-start overflow-y-auto" bind:this={dialog} aria-label="Sign" onclose={onDone}>
	<div class="modal-box mt-4 max-h-none max-w-md">
		<h2 class="text-2xl font-bold">Sign: {what}</h2>
		<p class="mb-2">In the name of <strong>{session.person?.name}</strong>.</p>
		<ProblemNote problem={signature.refused} />
		<PinPad
			label="Your PIN or password"
			enter="Sign"
			busy={signature.busy}
			fault={signature.fault}
			onEnter={(pin) => void signature.give(pin)}
		/>
		<div class="modal-action"><button class="btn" onclick={() => dialog?.close()}>Back</button></div>
	</div>
</dialog>
