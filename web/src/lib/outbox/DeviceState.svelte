<script lang="ts">
	import CloudOff from '@lucide/svelte/icons/cloud-off';
	import HardDrive from '@lucide/svelte/icons/hard-drive';
	import { session } from '$lib/session';
	import { device } from './device.svelte';

	const mine = $derived(device.waiting.filter((entry) => entry.who === session.key));
	const others = $derived(device.waiting.filter((entry) => entry.who !== session.key));
	const faulty = $derived(mine.filter((entry) => entry.fault));
	const names = $derived([...new Set(others.map((entry) => entry.whoName))].join(', '));
	const minutes = $derived(Math.round(Math.abs(session.clockAheadS) / 60));
	const kept = $derived(`${mine.length} kept on this device`);
</script>

{#snippet note(text: string, offline = false)}
	<p class="badge h-auto gap-2 py-1 badge-warning font-semibold" role="status">
		{#if offline}<CloudOff size={18} aria-hidden="true" />{:else}<HardDrive
				size={18}
				aria-hidden="true"
			/>{/if}
		{text}
	</p>
{/snippet}

<div class="flex flex-wrap gap-2 px-4 empty:hidden [&>p]:mt-1 print:hidden">
	{#if device.away}
		{@render note(
			`${device.away.title}${mine.length ? `; ${kept}, sent when the connection is back` : ''}`,
			true
		)}
	{:else if faulty.length}
		{@render note(
			`The server failed at ${faulty.length} of the entries; they are kept on this device and tried again`
		)}
	{/if}
	{#if others.length}
		{@render note(`${others.length} entries of ${names} wait on this device for ${names} to sign in`)}
	{/if}
	{#if !device.keeps}
		{@render note('This device cannot keep entries: stay on this page until they are sent')}
	{/if}
	{#if session.clockInDoubt}
		{@render note(
			`The clock of this device is ${minutes} min ${session.clockAheadS > 0 ? 'ahead of' : 'behind'} the server's`
		)}
	{/if}
</div>
