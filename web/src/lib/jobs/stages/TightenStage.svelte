<script lang="ts">
	import { api, ask, type Schemas } from '$lib/api';
	import ActionBar from '../ActionBar.svelte';
	import type { StageProps } from './props';
	import TightenGroup from './TightenGroup.svelte';

	let { store, view, sheet }: StageProps = $props();
	let wrenches = $state.raw<Schemas['WrenchToolOut'][]>([]);
	let picked = $state<string | null>(null);
	const groups = $derived(sheet.document.fasteners ?? []);

	const left = (key: string) => {
		const group = groups.find((one) => one.key === key);
		const wanted = group ? group.count * (group.passes_pct ?? [100]).length : 0;
		return wanted - view.readings.filter((reading) => reading.value.group === key).length;
	};
	const group = $derived(
		groups.find((one) => one.key === picked) ?? groups.find((one) => left(one.key) > 0) ?? groups[0]
	);

	$effect(() => {
		void ask(api.GET('/api/wrenches')).then((answer) => (wrenches = answer.data ?? []));
	});
</script>

<h1 class="mb-2 text-3xl font-extrabold">Tighten</h1>
<div class="mb-3 flex flex-wrap gap-2" role="group" aria-label="Fastener groups">
	{#each groups as one (one.key)}
		<button
			class="btn aria-pressed:btn-primary"
			aria-pressed={group?.key === one.key}
			onclick={() => (picked = one.key)}
		>
			{one.name}
			<span class="font-normal">{left(one.key) > 0 ? `${left(one.key)} left` : 'all read'}</span>
		</button>
	{/each}
</div>
{#if group}
	{#key group.key}
		<TightenGroup {store} {view} {group} {wrenches} />
	{/key}
{:else}
	<p class="panel">The build sheet names no fasteners to a torque.</p>
{/if}
<ActionBar {store} stage="tighten" />
