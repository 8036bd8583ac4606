<script setup lang="ts">
/** One source as the chosen style prints it, or why it prints nothing. */
import type { CiteReply } from '@pandecta/contract';
import { useCiting } from '../citing/store.ts';

defineProps<{ cited: CiteReply | null | undefined }>();
const citing = useCiting();
</script>

<template>
  <!-- eslint-disable vue/no-v-html -- made by the citation processor, which escapes what comes from records -->
  <p v-if="cited?.entries[0]" class="font-serif leading-[1.4]" v-html="cited.entries[0].html" />
  <!-- eslint-enable vue/no-v-html -->
  <p v-else-if="cited" class="text-muted">{{ citing.unprintedWords(cited) }}.</p>
</template>
