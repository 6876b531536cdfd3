import { chakra } from '@chakra-ui/react';
import type { Sort } from './sorts';

/** The colour in which a sort of regions is drawn. */
export const Swatch = ({ sort }: { sort: Sort }) => (
  <chakra.span aria-hidden display="inline-block" w="9px" h="9px" rounded="2px" mr="6px" bg={sort.colour} />
);
