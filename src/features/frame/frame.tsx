'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import { useQuery } from '@tanstack/react-query';
import { Menu } from 'lucide-react';
import { usePathname, useRouter } from 'next/navigation';
import { Suspense, lazy, useEffect, useRef, useState, useSyncExternalStore, type ReactNode } from 'react';
import { call, tell } from '@/workbench/api';
import { FacesProvider, type Face } from '@/ui/kinds';
import { Act } from '@/ui/controls';
import { useKeptThings } from '@/ui/kept';
import { isTyping } from '@/ui/ledger-state';
import { DayOrderProvider } from '@/ui/time';
import type { DayOrder } from '@/core/plan';
import { Toasts, say } from '@/ui/toasts';
import { EditsProvider, useWaiting } from '@/workbench/edits';
import { JobBar } from '@/workbench/job-bar';
import { useJob, whyNot } from '@/workbench/use-job';
import { AskLine } from './ask-line';
import { ProblemWalk } from './problem-walk';
import { Rail, type RailCounts } from './rail';
import { Ribbon, type RibbonData } from './ribbon';
import { useRefresh } from '@/ui/refresh';

export interface FrameData {
  actor: { name: string; role: string; rights: readonly string[]; account: string };
  organisation: string;
  dayOrder: DayOrder;
  sites: { name: string; zone: string }[];
  counts: RailCounts;
  ribbon: RibbonData;
  draftVersion: number;
  /** the one that is live */
  revision: number;
  /** what colleagues did to the reader's edits */
  told: { id: string; sentence: string }[];
  faces: Readonly<Record<string, Face>>;
}

/** The menu and the list of keys are seldom opened: they come after the page. */
const AccountMenu = lazy(() => import('./account-menu'));
const KeysPanel = lazy(() => import('./keys-panel'));
const Name = chakra('span', { base: { color: 'quiet', fontSize: '13px', display: { base: 'none', md: 'block' } } });

const HEALTH_EVERY_MS = 4000;
/** A page nobody touches is not refreshed, since that would keep its reader signed in. */
const IDLE_MS = 60_000;

/** What stands around every screen: Ask line, rail, ribbon, and the word when the database is away. */
export function Frame({ data, children }: { data: FrameData; children: ReactNode }) {
  const router = useRouter();
  const refresh = useRefresh();
  const path = usePathname();
  const typed = useKeptThings(data.actor.account).length;
  const [keys, setKeys] = useState(false);
  const [menu, setMenu] = useState(false);
  const lastKey = useRef('');
  const undoQueue = useRef(Promise.resolve());
  const [undo, setUndo] = useState<string | null>(null);
  const undoing = useJob<{ label: string }>(undo, (ended) => {
    say(whyNot(ended) ?? 'Your last edit is undone, all of it.');
    setUndo(null);
    refresh();
  });
  const gone = useHealth(data.draftVersion, refresh);
  const canEdit = data.actor.rights.includes('edit');

  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      if (e.key === 'Escape') {
        setKeys(false);
        setMenu(false);
        return;
      }
      if (isTyping(e.target)) return;
      if ((e.ctrlKey || e.metaKey) && e.key === 'z' && canEdit) {
        e.preventDefault();
        // One after the other: a second press must meet the draft that the first one left.
        undoQueue.current = undoQueue.current.then(async () => {
          const undone = await call('undo', { body: {} });
          if (!undone.ok) say(undone.errors[0]!.sentence);
          else if ('job' in undone.value) setUndo(undone.value.job);
          else say('label' in undone.value ? `Undone: ${undone.value.label}.` : 'It is undone.');
          refresh();
        });
        return;
      }
      if (e.ctrlKey || e.metaKey || e.altKey) return;
      if (e.key === '?') setKeys((k) => !k);
      if (e.key === 'l' && lastKey.current === 'g') router.push('/go-live');
      lastKey.current = e.key;
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [router, refresh, canEdit]);

  return (
    <FacesProvider faces={data.faces}>
      <DayOrderProvider value={data.dayOrder}>
        <EditsProvider account={data.actor.account} draftVersion={data.draftVersion}>
          <Flex direction="column" h="100dvh" overflow="hidden" data-draft-version={data.draftVersion}>
            <Flex
              as="header"
              h="52px"
              flexShrink={0}
              align="center"
              gap="12px"
              px="16px"
              borderBottom="1px solid"
              borderColor="line"
              bg="raised"
            >
              <chakra.button
                type="button"
                display={{ base: 'block', md: 'none' }}
                aria-label="Menu"
                aria-expanded={menu}
                onClick={() => setMenu(!menu)}
                w="28px"
              >
                <Menu size={20} aria-hidden />
              </chakra.button>
              <chakra.a
                href="/"
                w={{ md: '140px' }}
                fontSize="18px"
                fontWeight={800}
                textDecoration="none"
                color="ink"
                letterSpacing="-0.02em"
                display={{ base: 'none', md: 'block' }}
              >
                poly
                <chakra.span color="plum">drome</chakra.span>
              </chakra.a>
              <AskLine revision={data.revision} />
              <OnItsWay />
              <Clock sites={data.sites} />
              <Suspense fallback={<Name>{data.actor.name}</Name>}>
                <AccountMenu name={data.actor.name} onKeys={() => setKeys(true)} />
              </Suspense>
            </Flex>
            {gone ? (
              <Box
                role="alert"
                bg="brickTint"
                borderBottom="1px solid"
                borderColor="brick"
                px="16px"
                py="6px"
                fontSize="13px"
                data-testid="database-gone"
              >
                The database does not answer. Nothing is lost: what you type is kept in this browser, and this page goes
                on by itself when the database is back.
              </Box>
            ) : null}
            <ToldStrip told={data.told} />
            <Flex flex="1" minH={0}>
              <Rail
                counts={data.counts}
                path={path}
                rights={data.actor.rights}
                typed={typed}
                open={menu}
                onGo={() => setMenu(false)}
              />
              <Flex direction="column" flex="1" minW={0} minH={0}>
                {undo ? (
                  <Box px="22px" pt="12px">
                    <JobBar job={undoing} what="Taking your last edit back" />
                  </Box>
                ) : null}
                {children}
              </Flex>
            </Flex>
            <ProblemWalk />
            <Toasts />
            {keys ? (
              <Suspense fallback={null}>
                <KeysPanel onClose={() => setKeys(false)} />
              </Suspense>
            ) : null}
            <Ribbon
              data={data.ribbon}
              mayGoLive={data.actor.rights.includes('goLive')}
              mayAsk={data.actor.rights.includes('ask')}
            />
          </Flex>
        </EditsProvider>
      </DayOrderProvider>
    </FacesProvider>
  );
}

/** Asks now and then whether all is well; refreshes when somebody else's edit has made a new draft version. */
function useHealth(draftVersion: number, refresh: () => void): boolean {
  const touched = useRef(0);
  const was = useRef(false);
  useEffect(() => {
    touched.current = Date.now();
    const touch = () => (touched.current = Date.now());
    const signs = ['pointermove', 'pointerdown', 'keydown', 'focus'] as const;
    for (const sign of signs) window.addEventListener(sign, touch, { passive: true });
    return () => {
      for (const sign of signs) window.removeEventListener(sign, touch);
    };
  }, []);
  const { data: health, dataUpdatedAt } = useQuery({
    queryKey: ['health'],
    queryFn: ({ signal }) => call('health', {}, signal),
    refetchInterval: HEALTH_EVERY_MS,
    refetchIntervalInBackground: false,
    staleTime: 0,
  });
  const gone = health !== undefined && !health.ok;
  useEffect(() => {
    if (!health) return;
    const news = health.ok && (was.current || health.value.draftVersion !== draftVersion);
    if (news && Date.now() - touched.current < IDLE_MS) refresh();
    was.current = !health.ok;
    // Each answer is looked at once, also one that says the same as before.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [dataUpdatedAt]);
  return gone;
}

/** What was closed in this window: a page loaded again at once may be older than the answer to closing. */
const CLOSED = 'polydrome-told-closed';
const closedBefore = () => sessionStorage.getItem(CLOSED) ?? '';
const never = () => () => {};

/** What colleagues did to the reader's edits: it stands until it is read. */
function ToldStrip({ told }: { told: FrameData['told'] }) {
  const [read, setRead] = useState<readonly string[]>([]);
  const before = useSyncExternalStore(never, closedBefore, () => '').split(' ');
  const left = told.filter((t) => !read.includes(t.id) && !before.includes(t.id));
  if (left.length === 0) return null;
  return (
    <Box role="status" bg="plumTint" borderBottom="1px solid" borderColor="plum" px="16px" py="6px" fontSize="13px">
      {left.map((t) => (
        <Flex key={t.id} gap="12px" align="center" data-testid="told">
          <Box minW={0} overflowWrap="anywhere">
            {t.sentence}
          </Box>
          <Act
            look="text"
            h="22px"
            aria-label={`Close: ${t.sentence}`}
            onClick={() => {
              setRead([...read, t.id]);
              sessionStorage.setItem(CLOSED, [...before, ...read, t.id].join(' '));
              tell('read', { params: { id: t.id } });
            }}
          >
            Close
          </Act>
        </Flex>
      ))}
    </Box>
  );
}

/** Says while edits are on their way to the draft. */
function OnItsWay() {
  const waiting = useWaiting();
  return (
    <Box
      role="status"
      color="quiet"
      fontSize="13px"
      whiteSpace="nowrap"
      data-testid="on-its-way"
      data-waiting={waiting}
    >
      {waiting > 0 ? 'saving …' : ''}
    </Box>
  );
}

function Clock({ sites }: { sites: { name: string; zone: string }[] }) {
  const [now, setNow] = useState<Date | null>(null);
  useEffect(() => {
    const tick = () => setNow(new Date());
    const first = setTimeout(tick, 0);
    const timer = setInterval(tick, 10_000);
    return () => {
      clearTimeout(first);
      clearInterval(timer);
    };
  }, []);
  const site = sites[0];
  const time =
    now && site
      ? new Intl.DateTimeFormat('en-GB', { timeZone: site.zone, hour: '2-digit', minute: '2-digit' }).format(now)
      : '';
  return (
    <Box color="quiet" fontSize="13px" whiteSpace="nowrap" display={{ base: 'none', md: 'block' }}>
      {site ? `${site.name} ${time}` : ''}
    </Box>
  );
}
