<script setup lang="ts" generic="Row extends object">
/** Rows of a few columns; each cell is a slot of the name of its column. The heads are told, and seen where it is asked. */
defineProps<{
  label: string;
  columns: { key: string; name: string; class?: string }[];
  rows: Row[];
  heads?: boolean;
  /** Columns share the width, whatever is in them. */
  even?: boolean;
}>();
</script>

<template>
  <table class="w-full" :class="even && 'table-fixed'" :aria-label="label">
    <thead :class="heads ? 'heading text-left' : 'sr-only'">
      <tr>
        <th
          v-for="c in columns"
          :key="c.key"
          scope="col"
          :class="[/\bw-\S+/.exec(c.class ?? '')?.[0], c.class?.includes('text-right') && 'pr-4 text-right last:pr-0']"
        >
          {{ c.name }}
        </th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="(row, i) in rows" :key="i" class="border-b border-line align-top">
        <td v-for="c in columns" :key="c.key" class="py-1 pr-4 last:pr-0" :class="c.class">
          <slot :name="c.key" :row="row" />
        </td>
      </tr>
    </tbody>
  </table>
</template>
