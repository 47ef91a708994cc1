<script lang="ts">
	import { fetchDocument } from '$lib/api';
	import Fields from './Fields.svelte';
	import { grouped, typeOf, type Body, type Document } from './document';

	let document = $state.raw<Document | null>(null);
	let words = $state('');
	const schemas = $derived(document?.components.schemas ?? {});
	const groups = $derived(document ? grouped(document, words) : []);

	$effect(() => {
		void fetchDocument().then((found) => (document = found as Document | null));
	});
</script>

{#snippet shown(content: Body)}
	{#if content.example}
		<pre class="overflow-x-auto bg-base-300 p-2 text-sm">{JSON.stringify(content.example, null, 2)}</pre>
	{/if}
	{#if content.schema}<Fields {schemas} schema={content.schema} />{/if}
{/snippet}

<svelte:head><title>API · Iron Kettle</title></svelte:head>

<main class="mx-auto w-full max-w-6xl flex-1 p-4">
	<h1 class="mb-2 text-4xl font-extrabold">API</h1>
	<p class="mb-2 max-w-prose">
		Every screen works through this API; scripts can too. A script signs in with a token (Workshop → Tokens).
		The document itself: <a class="link" href="/api/openapi.json">openapi.json</a>. Quantities are texts with
		their unit, such as “28 mm” or “180 bar”. <span class="text-primary">*</span> marks required fields.
	</p>
	<label class="mb-3 block max-w-xl">
		<span class="font-semibold">Find an operation</span>
		<input class="entry input w-full" type="search" bind:value={words} placeholder="rings match" />
	</label>

	{#if !document}<p class="faint">Loading …</p>
	{:else if !groups.length}<p>No operation matches.</p>{/if}
	{#each groups as [tag, operations] (tag)}
		<h2 class="mt-4 text-xl font-bold first-letter:uppercase">{tag}</h2>
		{#each operations as { method, path, operation } (method + path)}
			<details class="panel mb-1 py-1">
				<summary class="flex min-h-11 cursor-pointer flex-wrap items-center gap-x-3">
					<span class="w-16 font-mono font-bold text-primary">{method}</span>
					<span class="font-mono wrap-anywhere">{path}</span>
					<span class="faint">{operation.summary}</span>
				</summary>
				{#if operation.description}
					<p class="max-w-prose whitespace-pre-line">{operation.description.replaceAll('``', '')}</p>
				{/if}
				{#if operation.parameters?.length}
					<h3 class="mt-2 font-semibold">Parameters</h3>
					<table class="table text-base">
						<tbody>
							{#each operation.parameters as parameter (parameter.in + parameter.name)}
								<tr>
									<td class="font-mono">
										{parameter.name}{#if parameter.required}<span class="text-primary">*</span>{/if}
									</td>
									<td>{parameter.in}</td>
									<td>{typeOf(parameter.schema)}</td>
									<td>{parameter.description ?? ''}</td>
								</tr>
							{/each}
						</tbody>
					</table>
				{/if}
				{#each Object.entries(operation.requestBody?.content ?? {}) as [type, content] (type)}
					<h3 class="mt-2 font-semibold">Body, {type}</h3>
					{@render shown(content)}
				{/each}
				<h3 class="mt-2 font-semibold">Answers</h3>
				{#each Object.entries(operation.responses) as [status, response] (status)}
					<details>
						<summary class="cursor-pointer"
							><span class="font-mono font-bold">{status}</span> {response.description}</summary
						>
						{#each Object.entries(response.content ?? {}) as [type, content] (type)}
							{@render shown(content)}
						{/each}
					</details>
				{/each}
			</details>
		{/each}
	{/each}
</main>
