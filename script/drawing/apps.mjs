// Small apps of widely used component libraries, each a page that is drawn once: what drawing costs is measured with them.

/** The imports of names from a package. */
const from = (name, names) => `import ${names} from '${name}';`;
const KIT = '{ Button, Typography, Paper, TextField, Chip, Box, Stack, Checkbox, Avatar, Divider }';
const KIT_MARKUP =
  '<Button>a</Button><Typography>t</Typography><Paper>p</Paper><TextField label="l" /><Chip label="c" /><Box>b</Box><Stack>s</Stack><Checkbox /><Avatar>A</Avatar><Divider />';
const FORMS = '{ Button, Input, Card, Tag, Select, Checkbox, Avatar, Divider, Space, Switch }';
const FORMS_MARKUP =
  '<Button>a</Button><Input /><Card>c</Card><Tag>t</Tag><Select /><Checkbox>c</Checkbox><Avatar>A</Avatar><Divider /><Space>s</Space><Switch />';
const PARTS = [
  ['button', '{ Button }'],
  ['inputtext', '{ InputText }'],
  ['card', '{ Card }'],
  ['checkbox', '{ Checkbox }'],
];

/** Name of each page, what it imports, what it draws, how many times, and what stands around all of it. */
export const APPS = [
  ['plain 20', '', '<p className="a">a line <b>of</b> text</p>', 20],
  ['plain 200', '', '<p className="a">a line <b>of</b> text</p>', 200],
  ['mui 1', from('@mui/material', '{ Button }'), '<Button variant="contained">a</Button>'],
  ['mui 30', from('@mui/material', KIT), KIT_MARKUP, 3],
  ['mui 100', from('@mui/material', KIT), KIT_MARKUP, 10],
  ['antd 10', from('antd', FORMS), FORMS_MARKUP],
  ['antd 50', from('antd', FORMS), FORMS_MARKUP, 5],
  [
    'chakra 30',
    from(
      '@chakra-ui/react',
      '{ ChakraProvider, Button, Input, Box, Text, Stack, Badge, Heading, Checkbox, Avatar, Divider }',
    ),
    '<Button>a</Button><Input /><Box>c</Box><Text>t</Text><Stack>s</Stack><Badge>c</Badge><Heading>A</Heading><Checkbox>c</Checkbox><Avatar /><Divider />',
    3,
    ['<ChakraProvider>', '</ChakraProvider>'],
  ],
  [
    'mantine 30',
    from(
      '@mantine/core',
      '{ MantineProvider, Button, TextInput, Card, Text, Stack, Badge, Title, Checkbox, Avatar, Divider }',
    ),
    '<Button>a</Button><TextInput /><Card>c</Card><Text>t</Text><Stack>s</Stack><Badge>c</Badge><Title>A</Title><Checkbox /><Avatar /><Divider />',
    3,
    ['<MantineProvider>', '</MantineProvider>'],
  ],
  [
    'bootstrap 30',
    from('react-bootstrap', '{ Button, Card, Badge, Form, Alert, Nav, Spinner, Table, Container, Row }'),
    '<Button>a</Button><Card>c</Card><Badge>c</Badge><Form>f</Form><Alert>t</Alert><Nav>s</Nav><Spinner /><Table><tbody /></Table><Container>c</Container><Row>r</Row>',
    3,
  ],
  ['select 3', from('react-select', 'Select'), '<Select options={[]} />', 3],
  [
    'fluent 30',
    from(
      '@fluentui/react-components',
      '{ FluentProvider, webLightTheme, Button, Input, Card, Text, Badge, Checkbox, Avatar, Divider, Switch, Label }',
    ),
    '<Button>a</Button><Input /><Card>c</Card><Text>t</Text><Badge>c</Badge><Checkbox /><Avatar /><Divider /><Switch /><Label>l</Label>',
    3,
    ['<FluentProvider theme={webLightTheme}>', '</FluentProvider>'],
  ],
  [
    'prime 20',
    PARTS.map(([file, names]) => from(`primereact/${file}`, names)).join('\n'),
    '<Button label="a" /><InputText /><Card>c</Card><Checkbox checked={false} />',
    5,
  ],
  ['lucide 40', from('lucide-react', '{ Home, User, Mail, Phone }'), '<Home /><User /><Mail /><Phone />', 10],
  [
    'markdown 1',
    from('react-markdown', 'Markdown'),
    "<Markdown>{'# Title\\n\\nSome *text*\\n\\n- a\\n- b\\n'}</Markdown>",
  ],
  [
    'headless 20',
    from('@headlessui/react', '{ Switch, Field, Label, Input, Button }'),
    '<Switch>a</Switch><Field><Label>l</Label><Input /></Field><Button>b</Button>',
    4,
  ],
  ['datepicker 1', from('react-datepicker', 'DatePicker'), '<DatePicker inline onChange={() => {}} />'],
  [
    'radix 30',
    from(
      '@radix-ui/themes',
      '{ Theme, Button, Card, Badge, Text, Heading, Checkbox, Avatar, Separator, Switch, Flex }',
    ),
    '<Button>a</Button><Card>c</Card><Badge>c</Badge><Text>t</Text><Heading>h</Heading><Checkbox /><Avatar fallback="A" /><Separator /><Switch /><Flex>f</Flex>',
    3,
    ['<Theme>', '</Theme>'],
  ],
  [
    'styled 30',
    `${from('styled-components', 'styled')}\nconst A = styled.div\`color: red; padding: 4px; &:hover { color: blue; }\`;\nconst B = styled.button\`border: 1px solid; margin: 2px;\`;`,
    '<A>a</A><B>b</B>',
    15,
  ],
  [
    'router 1',
    from('react-router-dom', '{ MemoryRouter, Routes, Route, Link }'),
    '<MemoryRouter><Link to="/a">a</Link><Link to="/b">b</Link><Routes><Route path="/" element={<p>x</p>} /></Routes></MemoryRouter>',
  ],
];

/** Packages that they need, with the versions that they were measured with. */
export const PACKAGES = [
  ...[
    'react@19',
    'react-dom@19',
    'react-is@19',
    '@mui/material@6',
    '@emotion/react@11',
    '@emotion/styled@11',
    'antd@5',
  ],
  ...['@chakra-ui/react@2', 'framer-motion@11', '@mantine/core@7', '@mantine/hooks@7', 'react-bootstrap@2'],
  ...['react-select@5', '@fluentui/react-components@9', 'primereact@10', 'lucide-react', 'react-markdown@9'],
  ...['@headlessui/react@2', 'react-datepicker@7', '@radix-ui/themes@3', 'styled-components@6', 'react-router-dom@6'],
];

/** The files of an app: its page is drawn at once, and how long that took is kept where it can be asked for. */
export function filesOf([name, imports, markup, times = 1, [open, close] = ['', '']]) {
  const drawn = `${open}${Array(times).fill(markup).join('\n      ')}${close}`;
  return {
    'package.json': JSON.stringify({ name, dependencies: { react: '19', 'react-dom': '19' } }),
    'index.html': '<div id="root"></div><script type="module" src="/src/main.jsx"></script>',
    'src/page.jsx': `${imports}\nexport function Page() {\n  return (\n    <main>\n      ${drawn}\n    </main>\n  );\n}\n`,
    'src/main.jsx': `import { createRoot } from 'react-dom/client';
import { flushSync } from 'react-dom';
import { Page } from './page.jsx';
const root = createRoot(document.getElementById('root'));
const from = performance.now();
flushSync(() => root.render(<Page />));
const drawn = performance.now();
document.body.offsetHeight;
globalThis.took = { drawing: drawn - from, layout: performance.now() - drawn };
`,
  };
}
