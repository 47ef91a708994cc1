<script lang="ts">
	import Fields from './Fields.svelte';
	import { modelOf, typeOf, type Schema } from './document';

	interface Props {
		schemas: Record<string, Schema>;
		schema: Schema;
	}
	let { schemas, schema }: Props = $props();
	const name = $derived(modelOf(schema));
	const model = $derived((name ? schemas[name] : null) ?? schema);
	const ways = $derived(
		(model.oneOf ?? model.anyOf ?? []).filter((way) => modelOf(way) !== null && modelOf(way) !== name)
	);
</script>

{#if model.description}<p class="faint max-w-prose whitespace-pre-line">
		{model.description.replaceAll('``', '')}
	</p>{/if}
{#if model.properties}
	<table class="table text-base">
		<tbody>
			{#each Object.entries(model.properties) as [field, inner] (field)}
				<tr>
					<td class="align-top font-mono">
						{field}{#if model.required?.includes(field)}<span class="text-primary" title="required">*</span
							>{/if}
					</td>
					<td class="max-w-64 align-top wrap-anywhere">{typeOf(inner)}</td>
					<td class="align-top">
						{inner.description ?? ''}
						{#if modelOf(inner)}
							<details>
								<summary class="link cursor-pointer">{modelOf(inner)}</summary>
								<Fields {schemas} schema={inner} />
							</details>
						{/if}
					</td>
				</tr>
			{/each}
		</tbody>
	</table>
{:else if ways.length}
	<p>One of:</p>
	{#each ways as way (modelOf(way))}
		<details>
			<summary class="link cursor-pointer font-mono">{modelOf(way)}</summary>
			<Fields {schemas} schema={way} />
		</details>
	{/each}
{:else}
	<p>{typeOf(model)}</p>
{/if}
