import fc from 'fast-check';
import { load } from 'cheerio';
import { describe, expect, test } from 'vitest';
import { readPage, snapshotOf, withPictures } from './index.ts';

const PAGE = `<!doctype html><html><head><title>Gate stays open</title><meta property="og:image" content="/lead.jpg">
<script>alert(1)</script></head><body><nav>Home News Sport</nav><main><article><h1>Gate stays open</h1>
<p onclick="steal()">The <a href="/board">board</a> <em>announced</em> it.</p><img src="gate.png" alt="The gate">
<a href="javascript:steal()">here</a><iframe src="https://evil.example"></iframe><form><input value="x"></form>
<table><tr><td colspan="2">1872</td></tr></table></article></main><footer>All rights</footer></body></html>`;

describe('a snapshot', () => {
  const { html, text, pictures } = snapshotOf(
    PAGE,
    'https://packet.example/news/1',
    'Seen at https://packet.example/news/1, 28 November 2026',
  );

  test('keeps the text with its headings, tables and links, and nothing that runs or stands around it', () => {
    const $ = load(html);
    expect(text).toBe('Gate stays open\nThe board announced it. here 1872');
    expect($('script,iframe,form,input,nav,footer,[onclick]').length).toBe(0);
    expect(
      $('a')
        .toArray()
        .map((a) => $(a).attr('href')),
    ).toEqual(['https://packet.example/board', undefined]);
    expect($('td').attr('colspan')).toBe('2');
    expect($('.from').text()).toBe('Seen at https://packet.example/news/1, 28 November 2026');
  });

  test('names its pictures, and needs nothing from outside once they are in it', () => {
    expect(pictures).toEqual(['https://packet.example/lead.jpg', 'https://packet.example/news/gate.png']);
    const whole = withPictures(html, new Map([[1, 'data:image/png;base64,AAAA']]));
    expect(
      load(whole)('img')
        .toArray()
        .map((i) => [i.attribs.src, i.attribs.alt]),
    ).toEqual([['data:image/png;base64,AAAA', 'The gate']]);
    expect(whole).not.toMatch(/src="(?!data:)/);
  });

  test('whatever a page holds, runs nothing', () => {
    const scrap = fc.constantFrom(
      '<script>',
      '</script>',
      '<img src=x onerror=alert(1)>',
      '<svg/onload=alert(1)>',
      '"><',
      '<a href="jAvAscript:x">',
      '<style>',
      '<p>',
      'text',
      '<math><mi//xlink:href="data:x,y">',
      '&lt;script&gt;',
      '<!--',
      '<noscript><p title="</noscript><img src=x onerror=alert(1)>">',
    );
    fc.assert(
      fc.property(fc.array(scrap, { maxLength: 12 }), (scraps) => {
        const $ = load(snapshotOf(scraps.join(''), 'https://x.example/', 'today').html);
        expect($('script,iframe,object,embed,svg,math,form').length).toBe(0);
        for (const el of $('*').toArray())
          for (const [name, value] of Object.entries((el as { attribs: Record<string, string> }).attribs))
            expect([name, /^on/i.test(name) || /^\s*javascript:/i.test(value)]).toEqual([name, false]);
      }),
    );
  });
});

describe('what a page states in the vocabulary of schema.org', () => {
  const wanted = {
    type: 'article-journal',
    title: 'Marsh edges',
    author: [{ family: 'Halvard', given: 'Runa' }],
    'container-title': 'Coastal Processes',
    volume: '55',
    issued: { 'date-parts': [[2024, 3, 4]] },
    DOI: '10.5555/edge.2024',
  };

  test('is read from microdata, as the HTML standard nests it', () => {
    const html = `<body><div itemscope itemtype="https://schema.org/ScholarlyArticle"><h1 itemprop="name">Marsh edges</h1><span itemprop="author" itemscope itemtype="https://schema.org/Person"><span itemprop="name">Runa Halvard</span></span><time itemprop="datePublished" datetime="2024-03-04">March</time><div itemprop="isPartOf" itemscope itemtype="https://schema.org/PublicationVolume"><span itemprop="volumeNumber">55</span><div itemprop="isPartOf" itemscope itemtype="https://schema.org/Periodical"><span itemprop="name">Coastal Processes</span></div></div><a itemprop="sameAs" href="https://doi.org/10.5555/edge.2024">DOI</a></div></body>`;
    expect(readPage(html, 'https://c.example/1').record).toMatchObject(wanted);
  });

  test('is read from RDFa Lite', () => {
    const html = `<body vocab="https://schema.org/"><div typeof="ScholarlyArticle"><h1 property="name">Marsh edges</h1><span property="author" typeof="Person"><span property="name">Runa Halvard</span></span><meta property="datePublished" content="2024-03-04"><div property="isPartOf" typeof="PublicationVolume"><span property="volumeNumber">55</span><div property="isPartOf" typeof="Periodical"><span property="name">Coastal Processes</span></div></div><a property="sameAs" href="https://doi.org/10.5555/edge.2024">DOI</a></div></body>`;
    expect(readPage(html, 'https://c.example/1').record).toMatchObject(wanted);
  });

  test('of a list each work is offered, and so are the printed references of a page', () => {
    const list = `<script type="application/ld+json">{"@context":"https://schema.org","@type":"ItemList","itemListElement":[{"@type":"ListItem","item":{"@type":"Book","name":"Silt"}},{"@type":"ListItem","item":{"@type":"Book","name":"Mud"}}]}</script>`;
    expect(readPage(list, 'https://c.example').items.map((i) => i.title)).toEqual(['Silt', 'Mud']);
    const printed = `<ul><li>Home</li><li>Vance, I. (2009). Silt in small estuaries. <i>Coastal Processes</i>, 12(3), 201–209.</li><li>Okonjo, M. (2014). Who closes the gate? <i>Coastal Processes</i>, 41(3), 1–20.</li><li>Quill, T. (1998). Tidal restriction. <i>Coastal Processes</i>, 31(2), 4–19.</li></ul>`;
    expect(readPage(printed, 'https://c.example').items.map((i) => i.title)).toEqual([
      'Silt in small estuaries',
      'Who closes the gate?',
      'Tidal restriction',
    ]);
  });
});
