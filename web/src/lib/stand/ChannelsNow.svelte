<script lang="ts">
	import type { Schemas } from '$lib/api';

	interface Props {
		channels: Schemas['ChannelNowOut'][];
	}
	let { channels }: Props = $props();
</script>

<dl
	class="grid grid-cols-[1fr_auto] gap-x-4 gap-y-1 sm:grid-cols-[1fr_auto_1fr_auto]"
	aria-label="What the channels show"
>
	{#each channels as channel (channel.key)}
		<dt class="faint">{channel.name}</dt>
		<dd class={['text-right font-semibold tabular-nums', channel.value === null && 'text-warning']}>
			{channel.shown}
		</dd>
	{/each}
</dl>
