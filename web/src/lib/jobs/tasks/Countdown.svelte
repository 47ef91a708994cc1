<script lang="ts">
	import { duration } from '$lib/shared';

	interface Props {
		/** When the time is over, and what the server's clock said when that was told. */
		until: string;
		serverTime: string;
		/** Called once when the time is over. */
		onOver?: () => void;
	}
	let { until, serverTime, onOver }: Props = $props();

	/** How far this device's clock is ahead of the server's, which the time runs on. */
	const ahead = $derived(Date.now() - Date.parse(serverTime));
	let now = $state(Date.now());
	const left = $derived(Math.max(0, (Date.parse(until) + ahead - now) / 1000));

	$effect(() => {
		const tick = setInterval(() => (now = Date.now()), 500);
		return () => clearInterval(tick);
	});
	$effect(() => {
		if (left <= 0) onOver?.();
	});
</script>

<p class="text-4xl font-extrabold tabular-nums" role="timer" aria-label="Time left">{duration(left)}</p>
