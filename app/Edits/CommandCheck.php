<?php

declare(strict_types=1);

namespace App\Edits;

use App\Exceptions\UserError;
use Illuminate\Support\Facades\Validator;

/** Whether what was sent is a command, has the fields that the command knows, and values that can be computed with. */
final class CommandCheck
{
    /** Bytes of one call, as JSON. */
    private const MOST_BYTES = 1 << 20;

    /**
     * @param  list<mixed>  $commands
     * @return list<array{EditCommand, array<string, mixed>}> each with its checked input
     */
    public static function all(array $commands): array
    {
        $limit = config('reel.commands_per_call');
        $limit = is_int($limit) ? $limit : 500;
        if (count($commands) === 0 || count($commands) > $limit) {
            throw new UserError(
                'edit.count',
                sprintf('%d commands in one call; from 1 to %d are taken.', count($commands), $limit),
                'Send them in several calls.',
            );
        }
        if (strlen((string) json_encode($commands, JSON_INVALID_UTF8_SUBSTITUTE | JSON_PARTIAL_OUTPUT_ON_ERROR)) > self::MOST_BYTES) {
            throw new UserError(
                'edit.size',
                sprintf('The call is larger than %d KB.', intdiv(self::MOST_BYTES, 1024)),
                'Send it in several calls.',
                413,
            );
        }

        return array_map(self::check(...), $commands, array_keys($commands));
    }

    /** @return array{EditCommand, array<string, mixed>} */
    private static function check(mixed $command, int $n): array
    {
        if (! is_array($command) || ! is_string($command['do'] ?? null)) {
            throw new UserError('edit.shape', "Command {$n} has no name; \"do\" says what to do.", 'Give each command a "do".');
        }
        $kind = CommandList::get(mb_substr(mb_scrub($command['do']), 0, 60));
        array_walk_recursive($command, static function (mixed $value, int|string $field) use ($n): void {
            if (is_float($value) && ! is_finite($value) || is_float($value) && abs($value) > 1e12) {
                throw new UserError(
                    'edit.input',
                    sprintf(
                        'Command %d: the number at "%s" is too large to be computed with.',
                        $n,
                        mb_substr(mb_scrub((string) $field), 0, 40),
                    ),
                    'Give a number within a thousand billion; nothing was changed.',
                );
            }
        });
        self::refuseUnknown($command, $kind, $n);
        self::refuseEmpty($command, $kind, $n);
        $validator = Validator::make($command, $kind->rules());
        if ($validator->fails()) {
            throw new UserError(
                'edit.input',
                "Command {$n} ({$kind->name()}): ".$validator->errors()->first(),
                'Correct it and send it again; nothing was changed.',
            );
        }

        /** @var array<string, mixed> $in */
        $in = $validator->validated();

        return [$kind, $in + (isset($command['as']) ? ['as' => $command['as']] : [])];
    }

    /**
     * What no rule names would be written into the journal and do nothing.
     *
     * @param  array<array-key, mixed>  $command
     */
    private static function refuseUnknown(array $command, EditCommand $kind, int $n): void
    {
        $known = array_map(static fn (string $rule): string => explode('.', $rule)[0], array_keys($kind->rules()));
        foreach (array_keys($command) as $field) {
            if (! in_array($field, [...$known, 'do', 'as'], true)) {
                throw new UserError(
                    'edit.input',
                    sprintf('Command %d (%s): there is no field "%s".', $n, $kind->name(), mb_substr(mb_scrub((string) $field), 0, 40)),
                    'It takes '.implode(', ', array_values(array_unique($known))).'; nothing was changed.',
                );
            }
        }
    }

    /**
     * The validator passes empty texts by; a number or a choice cannot be one.
     *
     * @param  array<array-key, mixed>  $command
     */
    private static function refuseEmpty(array $command, EditCommand $kind, int $n): void
    {
        foreach ($kind->rules() as $field => $rule) {
            $rule = is_array($rule) ? implode('|', array_filter($rule, is_string(...))) : $rule;
            if (($command[$field] ?? null) === '' && preg_match('/(^|\|)(integer|numeric|boolean|array|in:)/', $rule) === 1) {
                throw new UserError(
                    'edit.input',
                    "Command {$n} ({$kind->name()}): {$field} is empty.",
                    'Give it a value, or leave it out; nothing was changed.',
                );
            }
        }
    }
}
