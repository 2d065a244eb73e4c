import type { ReactNode } from 'react';
import { Controller, type UseFormReturn, useWatch } from 'react-hook-form';
import { ChoiceWord, Field, Tick } from '../../design/index.ts';
import type { BlogDraft } from './connecting.ts';
import { FORMS, HEADS } from './folderWords.ts';

type Form = UseFormReturn<BlogDraft>;

/** Address, user name where the way signs in with one, and secret. */
export function NetworkFields({ form, asksUser, autoFocus }: { form: Form; asksUser: boolean; autoFocus: boolean }) {
  const { errors } = form.formState;
  const isHook = useWatch({ control: form.control, name: 'way' }) === 'hook';
  return (
    <div className="grid grid-cols-2 gap-4">
      {isHook ? <NameField form={form} /> : null}
      <Field
        label={isHook ? 'Where its readers find it' : 'Address of the blog'}
        placeholder="https://your-shop.example/blog"
        autoFocus={autoFocus}
        wrong={errors.address?.message}
        {...form.register('address')}
      />
      {isHook ? (
        <Field
          label="Address the calls go to"
          placeholder="https://your-shop.example/articles"
          wrong={errors.endpoint?.message}
          {...form.register('endpoint')}
        />
      ) : null}
      {asksUser ? (
        <Field
          label="User name there"
          autoComplete="off"
          wrong={errors.user?.message}
          hint="Left empty, the secret is a token of its own."
          {...form.register('user')}
        />
      ) : null}
      <Field
        label="Its secret"
        type="password"
        autoComplete="off"
        wrong={errors.secret?.message}
        hint={
          isHook
            ? 'Both sides know it; calls are signed with it.'
            : 'A token, or a password for programs, that may create, change and delete posts.'
        }
        {...form.register('secret')}
      />
    </div>
  );
}

function NameField({ form }: { form: Form }) {
  return <Field label="What you call it" wrong={form.formState.errors.name?.message} {...form.register('name')} />;
}

/** Where a folder is, and how posts stand in it. */
export function FolderFields({ form, folders }: { form: Form; folders: readonly string[] }) {
  const { errors } = form.formState;
  return (
    <>
      <div className="grid grid-cols-2 gap-4">
        <NameField form={form} />
        <Field
          label="Where its readers find it"
          placeholder="https://your-shop.example/notes"
          wrong={errors.address?.message}
          {...form.register('address')}
        />
        <Field
          label="Folder"
          placeholder="shop-notes"
          wrong={errors.endpoint?.message}
          hint={
            folders.length === 0
              ? 'This installation allows none yet: whoever runs Grivo names them in GRIVO_FOLDERS.'
              : `A path below ${folders.join(' or ')}.`
          }
          {...form.register('endpoint')}
        />
        <Field
          label="Name of each file"
          wrong={errors.folder?.file?.message}
          hint="{slug} is the end of its address, made of its title; {date}, {year} and {month} say when it was written."
          {...form.register('folder.file')}
        />
        <Field
          label="Address of each post"
          wrong={errors.folder?.link?.message}
          hint="After the address of the blog, as your site makes it."
          {...form.register('folder.link')}
        />
        <Field
          label="Where pictures lie"
          wrong={errors.folder?.pictures?.message}
          hint="In the folder."
          {...form.register('folder.pictures')}
        />
      </div>
      <FolderSentence form={form} />
    </>
  );
}

function FolderSentence({ form }: { form: Form }) {
  const { control } = form;
  const isMarkdown = useWatch({ control, name: 'folder.form' }) === 'Markdown';
  return (
    <div className="flex flex-wrap items-center gap-x-6 gap-y-1 pt-3">
      <span>
        Posts are{' '}
        <Controller
          control={control}
          name="folder.form"
          render={({ field }) => (
            <ChoiceWord
              label="What posts are"
              value={field.value}
              options={FORMS}
              onChoose={(chosen) => {
                field.onChange(chosen);
                form.setValue('folder.file', chosen === 'HTML' ? '{slug}.html' : '{date}-{slug}.md');
                form.setValue('folder.link', chosen === 'HTML' ? '{slug}.html' : '{slug}');
                form.setValue('folder.pages', chosen === 'HTML');
              }}
            />
          )}
        />
        {isMarkdown ? (
          <>
            , with front matter in{' '}
            <Controller
              control={control}
              name="folder.head"
              render={({ field }) => (
                <ChoiceWord label="How front matter is written" options={HEADS} {...field} onChoose={field.onChange} />
              )}
            />
          </>
        ) : null}
        .
      </span>
      <Ticked form={form} name="folder.pages" label="Keep a front page, a feed and a sitemap">
        a front page, a feed and a sitemap beside them
      </Ticked>
      <Ticked form={form} name="folder.commits" label="Commit every act with git">
        commit every act with git, and push it
      </Ticked>
    </div>
  );
}

function Ticked({
  form,
  name,
  label,
  children,
}: {
  form: Form;
  name: 'folder.pages' | 'folder.commits';
  label: string;
  children: ReactNode;
}) {
  return (
    <Controller
      control={form.control}
      name={name}
      render={({ field }) => (
        <Tick state={field.value} onChange={field.onChange} label={label}>
          {children}
        </Tick>
      )}
    />
  );
}
