<script lang="ts">
	import { api, ask, type Problem, type Schemas } from '$lib/api';
	import { session } from '$lib/session';
	import { ProblemNote } from '$lib/shared';
	import Letterhead from './Letterhead.svelte';
	import LubricantNames from './LubricantNames.svelte';
	import RuleRow from './RuleRow.svelte';

	type Rule = Schemas['ShopSettingOut'];
	let rules = $state.raw<Rule[]>([]);
	let problem = $state.raw<Problem | null>(null);
	const groups = $derived([...new Set(rules.map((rule) => rule.group))]);

	$effect(() => {
		void ask(api.GET('/api/shop-settings')).then((answer) => {
			rules = answer.data ?? rules;
			problem = answer.problem;
		});
	});

	const mayChange = $derived(session.may('change_shop_settings'));

	async function set(rule: Rule, value: number): Promise<Problem | null> {
		const answer = await ask(
			api.PUT('/api/shop-settings/{key}', {
				params: { path: { key: rule.key } },
				body: { value }
			})
		);
		rules = answer.data ?? rules;
		return answer.problem;
	}

	async function reset(rule: Rule): Promise<Problem | null> {
		const answer = await ask(
			api.DELETE('/api/shop-settings/{key}', {
				params: { path: { key: rule.key } }
			})
		);
		rules = answer.data ?? rules;
		return answer.problem;
	}
</script>

<svelte:head><title>Shop settings · Iron Kettle</title></svelte:head>

<main class="mx-auto w-full max-w-7xl flex-1 p-4 pt-2">
	<h1 class="text-4xl font-extrabold">Shop settings</h1>
	<p class="mb-2">
		Where good practice differs, the shop decides. A change here applies to every calculation from then on and
		is named with it; the default is shown beside it.
	</p>
	<ProblemNote {problem} />
	{#if !mayChange}<p class="mb-2 font-semibold">Only the workshop lead can change them.</p>{/if}
	<div class="gap-4 lg:columns-2">
		<Letterhead {mayChange} />
		{#each groups as group (group)}
			<section class="panel mb-4 break-inside-avoid" aria-label={group}>
				<h2 class="text-2xl font-bold">{group}</h2>
				{#each rules.filter((rule) => rule.group === group) as rule (rule.key)}
					<RuleRow {rule} {mayChange} onSet={set} onReset={reset} />
				{/each}
			</section>
		{/each}
		<LubricantNames {mayChange} />
	</div>
</main>
