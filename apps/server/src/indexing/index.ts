/** What is derived of sources, and goes with them. The queue first: the indexer takes it before it writes vectors. */
export const indexing = {
  purged: ['index_queue', 'source_keys', 'source_facets', 'documents', 'source_text', 'source_sort'],
};
