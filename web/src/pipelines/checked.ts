import type { PipelineWhole } from '@grivo/contract';
import { type CheckContext, checkProcedure, checkRoutine } from '@grivo/core';
import { useQuery } from '@tanstack/react-query';
import { useDeferredValue, useMemo } from 'react';
import { read } from '../api/queries.ts';
import { whole } from './read.ts';
import type { Choices } from './StepWordEditor.tsx';

/** What there is to choose from, each as far as it was read. */
type Noun = 'blogs' | 'sources' | 'routines' | 'services' | 'destinations' | 'styles';
type Nouns = { [K in Noun]: Choices[K] | undefined };

function choicesOf(pipeline: string | null, all: Nouns): Choices {
  const { blogs, sources, routines, services, destinations, styles } = all;
  const nameIn = (rows: readonly { id: string; name: string }[] | undefined) => (id: string) =>
    rows?.find((row) => row.id === id)?.name ?? '…';
  return {
    pipeline,
    // What is archived is offered no more.
    blogs: blogs?.filter(({ archived }) => !archived) ?? [],
    sources: sources?.filter(({ archived }) => !archived) ?? [],
    routines: routines ?? [],
    services: services ?? [],
    destinations: destinations ?? [],
    styles: styles?.filter(({ archived }) => !archived) ?? [],
    names: {
      blog: nameIn(blogs),
      source: nameIn(sources),
      ...(blogs ? { blogLacks: (id: string) => blogs.find((blog) => blog.id === id)?.lacks ?? {} } : {}),
      routine: nameIn(routines),
      destination: nameIn(destinations),
      service: nameIn(services),
      style: nameIn(styles),
      hasStyles: (styles?.length ?? 0) > 0,
      ...(styles
        ? { cards: [...new Set(styles.flatMap(({ document }) => document.cards.map(({ name }) => name)))] }
        : {}),
      choosable: (role) => (services?.filter((one) => one.role === role).length ?? 0) > 1,
    },
  };
}

/**
 * What the words of a document can refer to, and what the checks find in it as it is now.
 * @param pipeline whose past runs tell about words; null of a routine, which is checked as one
 */
export function useChecked(pipeline: string | null, document: PipelineWhole['document']) {
  const blogs = useQuery(read.blogs()).data?.blogs;
  const sources = useQuery(read.sources()).data?.sources;
  const routines = useQuery(whole.routines()).data?.routines;
  const services = useQuery(read.services()).data?.services;
  const destinations = useQuery(read.destinations()).data?.destinations;
  const styles = useQuery(read.styles()).data?.styles;
  const choices = useMemo(
    () => choicesOf(pipeline, { blogs, sources, routines, services, destinations, styles }),
    [pipeline, blogs, sources, routines, services, destinations, styles],
  );
  const context = useMemo(
    (): CheckContext | null =>
      blogs && sources && routines && services
        ? {
            names: choices.names,
            hasBlog: (id) => blogs.some((blog) => blog.id === id),
            hasService: (id, role) => services.some((one) => one.id === id && one.role === role),
            hasSource: (id) => sources.some((source) => source.id === id),
            ...(styles ? { hasStyle: (id: string) => styles.some((one) => one.id === id) } : {}),
            ...(destinations ? { hasDestination: (id: string) => destinations.some((one) => one.id === id) } : {}),
            brings: (id) => sources.find((source) => source.id === id)?.brings ?? null,
            routine: (id) => {
              const found = routines.find((routine) => routine.id === id)?.document;
              return found ? { inputs: found.inputs ?? [], outputs: found.outputs ?? [] } : null;
            },
          }
        : null,
    [choices, blogs, sources, routines, services, destinations, styles],
  );
  // A key pressed in an instruction is drawn first; what the checks say of it comes a moment later.
  const settled = useDeferredValue(document);
  const problems = useMemo(
    () => (context ? (pipeline === null ? checkRoutine : checkProcedure)(settled, context) : []),
    [pipeline, settled, context],
  );
  return { choices, context, problems, sources };
}
