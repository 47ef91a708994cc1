<script lang="ts">
	import QrCode from '@lucide/svelte/icons/qr-code';
	import { openCode, ScanButton } from '$lib/scan';

	let typed = $state('');
	let fault = $state<string | null>(null);

	/** A reader types the link of the code and Enter; a hand types what stands beside it. */
	async function open() {
		if (typed.trim()) fault = await openCode(typed);
	}
	const focus = (node: HTMLElement) => node.focus();
</script>

<form
	class="flex flex-wrap items-end gap-2"
	onsubmit={(event) => {
		event.preventDefault();
		void open();
	}}
>
	<div class="min-w-64 flex-1">
		<label class="mb-1 block font-semibold" for="label">Scan a label, or type it</label>
		<input
			id="label"
			class={['entry input w-full font-mono text-xl', fault && 'input-error']}
			autocomplete="off"
			spellcheck="false"
			maxlength="400"
			placeholder="K7QF-3ZTM24"
			bind:value={typed}
			aria-invalid={fault ? 'true' : undefined}
			{@attach focus}
		/>
	</div>
	<ScanButton what="a label or a certificate" onCode={openCode} />
	<button class="btn btn-primary min-h-12"><QrCode size={20} aria-hidden="true" />Open</button>
</form>
{#if fault}<p class="text-error" role="alert">{fault}</p>{/if}
