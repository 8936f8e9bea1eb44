<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Exceptions\UserError;
use App\Models\Production;
use App\Models\Scene;
use CrispReel\Core\CoreFailure;
use Illuminate\Console\Command;
use Throwable;

/** Exit codes: 0 done, 2 bad input (what, where, what to do), 1 our fault. Results on standard output, messages on standard error. */
abstract class ReelCommand extends Command
{
    abstract protected function work(): int;

    final public function handle(): int
    {
        try {
            return $this->work();
        } catch (UserError $e) {
            return $this->refuse($e->reason, $e->getMessage(), $e->remedy);
        } catch (CoreFailure $e) {
            return $this->refuse($e->reason(), $e->getMessage(), $e->remedy());
        } catch (Throwable $e) {
            report($e);
            $this->say('Something went wrong here: '.$e->getMessage());

            return 1;
        }
    }

    private function refuse(string $reason, string $message, string $remedy): int
    {
        if ($this->hasOption('json') && $this->option('json')) {
            $this->line((string) json_encode(
                ['error' => ['reason' => $reason, 'message' => $message, 'remedy' => $remedy]],
                JSON_UNESCAPED_SLASHES | JSON_UNESCAPED_UNICODE,
            ));
        }
        $this->say($message);
        $this->say($remedy);

        return 2;
    }

    protected function say(string $text): void
    {
        if (! $this->output->isQuiet()) {
            fwrite(STDERR, $text.PHP_EOL);
        }
    }

    /**
     * @param  array<string, mixed>  $data
     * @param  list<string>  $text
     */
    protected function answer(array $data, array $text): int
    {
        if ($this->option('json')) {
            $this->line((string) json_encode($data, JSON_UNESCAPED_SLASHES | JSON_UNESCAPED_UNICODE | JSON_PRESERVE_ZERO_FRACTION));
        } else {
            array_map($this->line(...), $text);
        }

        return 0;
    }

    /** A scene by id, by name, or as "production/scene". */
    protected function scene(string $ref): Scene
    {
        $found = preg_match('/^\d+$/', $ref) === 1 ? Scene::query()->find((int) $ref) : null;
        if ($found === null && str_contains($ref, '/')) {
            [$production, $name] = explode('/', $ref, 2);
            $found = Scene::query()->where('name', trim($name))->whereHas('production', fn ($q) => $q->where('name', trim($production)))
                ->first();
        }
        $found ??= Scene::query()->where('name', $ref)->orderBy('id')->first()
            ?? Production::query()->where('name', $ref)->first()?->scenes()->orderBy('id')->first();

        return $found ?? throw new UserError(
            'scene.unknown',
            "There is no scene \"{$ref}\".",
            'Give a scene\'s number, its name, or production/scene.',
        );
    }

    protected function file(string $path): string
    {
        $bytes = is_file($path) && is_readable($path) ? file_get_contents($path) : false;

        return $bytes !== false
            ? $bytes
            : throw new UserError('file.unreadable', "\"{$path}\" cannot be read.", 'Give the path of a file that is there.');
    }

    protected function whole(string $option): ?int
    {
        $v = $this->option($option);
        if ($v === null || $v === '') {
            return null;
        }

        return is_string($v) && preg_match('/^\d{1,7}$/', $v) === 1 ? (int) $v : throw new UserError(
            "option.{$option}",
            "--{$option} takes a frame number from 0 up, not \"".(is_string($v) ? $v : '?').'".',
            'Give a whole number.',
        );
    }
}
