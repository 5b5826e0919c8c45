// Kits of components of widely used libraries, as apps draw them: what one of its components takes on average is measured with them.

import { inReact } from './widgets.mjs';

const react = (imports, markup, around = ['<>', '</>']) => ({
  system: ['react@18', 'react-dom@18'],
  code: (times) =>
    inReact(imports, `${around[0]}${'<Kit />'.repeat(times)}${around[1]}`, `const Kit = () => <div>${markup}</div>;`),
  count: tagsIn(markup),
});

/** Components of Vue as calls of its own function: `h(VBtn, { … }, () => 'a')` of `<VBtn a="b">text</VBtn>`. */
const vue = (imports, markup, install = '', around = '') => ({
  system: ['vue@3'],
  code: (times) => `import { createApp, h } from 'vue';
${imports}
const Kit = { render: () => h('div', [${callsOf(markup)}]) };
const inner = () => Array.from({ length: ${times} }, (_, key) => h(Kit, { key }));
const Page = { render: () => ${around === '' ? "h('div', inner())" : `h(${around}, null, { default: inner })`} };
export const before = (element) => createApp({ render: () => h('p', 'once') }).mount(element);
export const mount = (element) => { const app = createApp(Page); ${install} app.mount(element); };
`,
  count: tagsIn(markup),
});

function tagsIn(markup) {
  return [...markup.matchAll(/<[A-Z]/g)].length;
}

/** Markup of components that aren't nested, as calls. */
function callsOf(markup) {
  return [...markup.matchAll(/<([A-Z]\w*)((?:\s[\w-]+="[^"]*")*)\s*(?:\/>|>([^<]*)<\/\1>)/g)]
    .map(([, name, attributes, text = '']) => {
      const given = [...attributes.matchAll(/([\w-]+)="([^"]*)"/g)].map(
        ([, key, value]) => `${JSON.stringify(key)}: ${JSON.stringify(value)}`,
      );
      return `h(${name}, { ${given.join(', ')} }, () => ${JSON.stringify(text)})`;
    })
    .join(', ');
}

const namesIn = (markup) => [...new Set([...markup.matchAll(/<([A-Z]\w*)/g)].map((m) => m[1]))];
const of = (name, markup) => `import { ${namesIn(markup).join(', ')} } from '${name}';\n`;

const MUI =
  '<Button variant="contained">a</Button><Typography variant="h6">t</Typography><Card>c</Card><TextField label="l" /><Chip label="c" /><Box>b</Box><ListItemButton>i</ListItemButton><Checkbox /><Avatar>A</Avatar><Divider /><Alert>e</Alert><IconButton>x</IconButton>';
const ANTD =
  '<Button type="primary">a</Button><Input placeholder="i" /><Card title="t">c</Card><Tag>t</Tag><Select options={[]} /><Checkbox>c</Checkbox><Avatar>A</Avatar><Divider /><Space>s</Space><Switch /><Alert message="m" /><Badge count={3} />';
const CHAKRA =
  '<Button>a</Button><Input placeholder="i" /><Box>c</Box><Text>t</Text><Stack>s</Stack><Badge>c</Badge><Heading>A</Heading><Checkbox>c</Checkbox><Avatar /><Divider /><Alert>e</Alert><Tag>t</Tag>';
const MANTINE =
  '<Button>a</Button><TextInput label="l" /><Card>c</Card><Text>t</Text><Stack>s</Stack><Badge>c</Badge><Title>A</Title><Checkbox label="l" /><Avatar /><Divider /><Alert title="t">e</Alert><NavLink label="n" />';
const BOOTSTRAP =
  '<Button>a</Button><Card>c</Card><Badge>c</Badge><Form>f</Form><Alert>t</Alert><Nav>s</Nav><Spinner /><Table><tbody /></Table><Container>c</Container><Row>r</Row><ListGroup>l</ListGroup><InputGroup>i</InputGroup>';
const FLUENT =
  '<Button>a</Button><Input placeholder="i" /><Card>c</Card><Text>t</Text><Badge>c</Badge><Checkbox label="l" /><Avatar name="A B" /><Divider /><Switch label="s" /><Label>l</Label><Field label="f" /><Tag>t</Tag>';
const PRIMEREACT =
  '<Button label="a" /><InputText placeholder="i" /><Card title="t">c</Card><Checkbox checked={false} /><Tag value="t" /><Avatar label="A" /><Divider /><Badge value="3" /><InputSwitch checked={false} /><Dropdown options={[]} /><Message text="m" /><Chip label="c" />';
const RADIX =
  '<Button>a</Button><TextField.Root placeholder="i" /><Card>c</Card><Text>t</Text><Flex>s</Flex><Badge>c</Badge><Heading>A</Heading><Checkbox /><Avatar fallback="A" /><Separator /><Callout.Root>e</Callout.Root><Switch />';
const VUETIFY =
  '<VBtn color="primary">a</VBtn><VCard title="t" subtitle="s">c</VCard><VListItem title="t" subtitle="s" /><VTextField label="l" /><VChip>c</VChip><VCheckbox label="c" /><VAvatar>A</VAvatar><VDivider /><VAlert text="m" /><VSwitch label="s" /><VSelect label="l" /><VSheet>s</VSheet>';
const ELEMENT =
  '<ElButton type="primary">a</ElButton><ElInput placeholder="i" /><ElCard header="t">c</ElCard><ElTag>t</ElTag><ElSelect placeholder="s" /><ElCheckbox>c</ElCheckbox><ElAvatar>A</ElAvatar><ElDivider /><ElSpace>s</ElSpace><ElSwitch /><ElAlert title="m" /><ElBadge value="3">b</ElBadge>';
const NAIVE =
  '<NButton type="primary">a</NButton><NInput placeholder="i" /><NCard title="t">c</NCard><NTag>t</NTag><NSelect placeholder="s" /><NCheckbox>c</NCheckbox><NAvatar>A</NAvatar><NDivider /><NSpace>s</NSpace><NSwitch /><NAlert title="m">m</NAlert><NBadge value="3">b</NBadge>';
const PRIMEVUE =
  '<Button label="a" /><InputText placeholder="i" /><Card>c</Card><Tag value="t" /><Select placeholder="s" /><Checkbox /><Avatar label="A" /><Divider /><ToggleSwitch /><Message>m</Message><Badge value="3" /><Chip label="c" />';
const QUASAR =
  '<QBtn label="a" /><QInput label="l" /><QCard>c</QCard><QChip>c</QChip><QSelect label="l" /><QCheckbox label="c" /><QAvatar>A</QAvatar><QSeparator /><QItem>i</QItem><QToggle label="s" /><QBanner>m</QBanner><QBadge>3</QBadge>';

const each = (name, markup) =>
  namesIn(markup)
    .map((n) => `import { ${n} } from '${name(n)}';`)
    .join('\n');

/** Name of each library, what is installed with it, and its kit. */
export const LIBRARIES = [
  ['@mui/material', ['@mui/material@6', '@emotion/react', '@emotion/styled'], react(of('@mui/material', MUI), MUI)],
  ['antd', ['antd@5'], react(of('antd', ANTD), ANTD)],
  [
    '@chakra-ui/react',
    ['@chakra-ui/react@2', '@emotion/react', '@emotion/styled', 'framer-motion@11'],
    react(of('@chakra-ui/react', `${CHAKRA}<ChakraProvider`), CHAKRA, ['<ChakraProvider>', '</ChakraProvider>']),
  ],
  [
    '@mantine/core',
    ['@mantine/core@7', '@mantine/hooks@7'],
    react(of('@mantine/core', `${MANTINE}<MantineProvider`), MANTINE, ['<MantineProvider>', '</MantineProvider>']),
  ],
  ['react-bootstrap', ['react-bootstrap@2'], react(of('react-bootstrap', BOOTSTRAP), BOOTSTRAP)],
  [
    '@fluentui/react-components',
    ['@fluentui/react-components@9'],
    react(
      `${of('@fluentui/react-components', `${FLUENT}<FluentProvider`)}import { webLightTheme } from '@fluentui/react-components';`,
      FLUENT,
      ['<FluentProvider theme={webLightTheme}>', '</FluentProvider>'],
    ),
  ],
  [
    'primereact',
    ['primereact@10'],
    react(
      each((n) => `primereact/${n.toLowerCase()}`, PRIMEREACT),
      PRIMEREACT,
    ),
  ],
  [
    '@radix-ui/themes',
    ['@radix-ui/themes@3'],
    react(of('@radix-ui/themes', `${RADIX}<Theme`), RADIX, ['<Theme>', '</Theme>']),
  ],
  [
    'vuetify',
    ['vuetify@3'],
    vue(
      `${of('vuetify/components', `${VUETIFY}<VApp`)}import { createVuetify } from 'vuetify';`,
      VUETIFY,
      'app.use(createVuetify());',
      'VApp',
    ),
  ],
  ['element-plus', ['element-plus@2'], vue(of('element-plus', ELEMENT), ELEMENT)],
  ['naive-ui', ['naive-ui@2'], vue(of('naive-ui', NAIVE), NAIVE)],
  [
    'primevue',
    ['primevue@4', '@primevue/themes@4'],
    vue(
      `${each((n) => `primevue/${n.toLowerCase()}`, PRIMEVUE).replace(/import \{ (\w+) \}/g, 'import $1')}import PrimeVue from 'primevue/config'; import Aura from '@primevue/themes/aura';`,
      PRIMEVUE,
      'app.use(PrimeVue, { theme: { preset: Aura } });',
    ),
  ],
  [
    'quasar',
    ['quasar@2'],
    vue(`${of('quasar', QUASAR)}import { Quasar } from 'quasar';`, QUASAR, 'app.use(Quasar, {});'),
  ],
];
