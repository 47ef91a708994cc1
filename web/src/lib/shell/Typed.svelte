<script lang="ts">
	import { goto } from '$app/navigation';
	import { page } from '$app/state';
	import { land, readingOf } from '$lib/asks';
	import { openCode } from '$lib/scan';
	import { typed } from './typed';

	/** Where a code that is scanned opens what it names; elsewhere it does nothing. */
	const OPENS = ['/', '/due', '/units'];

	async function open(code: string) {
		if (await openCode(code)) await goto(`/units?q=${encodeURIComponent(code)}`);
	}
	/** What an instrument or a scanner types while no field has the cursor. Its Enter presses nothing. */
	function onkeydowncapture(event: KeyboardEvent) {
		const at = event.target instanceof HTMLElement ? event.target : null;
		if (at?.closest('input, textarea, select, dialog')) return;
		const burst = typed.key(event.key, event.timeStamp);
		if (burst === null) return;
		event.preventDefault();
		event.stopPropagation();
		const task = document.querySelector('[data-task]');
		const reading = readingOf(burst);
		if (task && reading !== null) land(reading, task);
		else if (!task && OPENS.includes(page.url.pathname)) void open(burst);
	}
</script>

<svelte:window {onkeydowncapture} />
