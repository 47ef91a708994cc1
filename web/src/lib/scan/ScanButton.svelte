<script lang="ts">
	import ScanQrCode from '@lucide/svelte/icons/scan-qr-code';
	import { tick } from 'svelte';
	import { readCodes } from './camera';

	interface Props {
		/** What is scanned here, as the dialog asks for it. */
		what: string;
		/** Takes a code; gives why it does not fit, and the camera goes on. */
		onCode: (code: string) => Promise<string | null>;
	}
	let { what, onCode }: Props = $props();

	const id = $props.id();
	let dialog = $state<HTMLDialogElement>();
	let video = $state<HTMLVideoElement>();
	let typed = $state('');
	let refused = $state('');
	let why = $state('');
	let open = $state(false);
	let stop: (() => void) | null = null;

	async function start() {
		open = true;
		typed = refused = why = '';
		await tick();
		dialog?.showModal();
		if (!video) return;
		const camera = await readCodes(video, (code) => void take(code));
		if ('why' in camera) why = camera.why;
		// Closed while the camera was starting: it goes off at once.
		else if (open) stop = camera.stop;
		else camera.stop();
	}
	function end() {
		open = false;
		stop?.();
		stop = null;
	}
	async function take(code: string) {
		if (!open || !code.trim()) return;
		refused = (await onCode(code.trim())) ?? '';
		if (!refused) dialog?.close();
	}
	$effect(() => end);
	const focus = (node: HTMLElement) => node.focus();
</script>

<button type="button" class="btn" onclick={start}
	><ScanQrCode size={20} aria-hidden="true" />Scan<span class="sr-only">: {what}</span></button
>
{#if open}
	<dialog class="modal" bind:this={dialog} onclose={end} aria-labelledby="{id}-title">
		<div class="modal-box max-w-lg space-y-2">
			<h2 id="{id}-title" class="text-2xl font-bold">Scan {what}</h2>
			<!-- svelte-ignore a11y_media_has_caption -->
			<video
				bind:this={video}
				class={['max-h-[50vh] w-full rounded bg-black', why && 'hidden']}
				muted
				playsinline
			></video>
			{#if why}<p class="font-semibold text-warning" role="alert">{why}</p>{/if}
			<p class="min-h-6 text-error" role="alert">{refused}</p>
			<form
				class="flex flex-wrap items-end gap-2"
				onsubmit={(event) => {
					event.preventDefault();
					void take(typed);
				}}
			>
				<div class="min-w-40 flex-1">
					<label class="block font-semibold" for="{id}-typed">or type the text beside the code</label>
					<input
						id="{id}-typed"
						class="entry input w-full font-mono"
						autocomplete="off"
						spellcheck="false"
						maxlength="400"
						bind:value={typed}
						{@attach focus}
					/>
				</div>
				<button class="btn btn-primary">Open</button>
				<button type="button" class="btn" onclick={() => dialog?.close()}>Close</button>
			</form>
		</div>
	</dialog>
{/if}
