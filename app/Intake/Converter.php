<?php

declare(strict_types=1);

namespace App\Intake;

use App\Exceptions\UserError;
use App\Isolation\Box;
use App\Isolation\BoxLimits;

/** Other model formats to GLB by the Open Asset Import Library's command, in the box. */
final class Converter
{
    private const MOST_SECONDS = 100;

    private const MEMORY = 3 * 1024 ** 3;

    private const MOST_COMPANIONS = 200;

    public function toGlb(FileMap $files, string $head, string $bytes): string
    {
        $ending = FileKinds::ending($head);
        // A small file that takes long is a broken one.
        $seconds = min(self::MOST_SECONDS, 7 + 4 * intdiv(strlen($bytes), 1 << 20));
        $result = Box::run(
            [$this->command(), 'export', "arrival.{$ending}", 'out.glb', '-fglb2', '-tri', '-gsn', '-jiv', '-slm'],
            ["arrival.{$ending}" => References::plain($bytes, $ending)] + $this->companions($files, $head),
            ['out.glb'],
            new BoxLimits($seconds, $seconds, self::MEMORY),
        );
        if ($result->timedOut) {
            throw new UserError(
                'convert.slow',
                "Reading it took more than {$seconds} seconds.",
                'Simplify the model, or export it as GLB.',
            );
        }
        if ($result->broke()) {
            throw new UserError(
                'convert.failed',
                sprintf('It is damaged: reading it as %s broke off.', strtoupper($ending)),
                'Export it again, best as GLB.',
            );
        }
        $glb = $result->files['out.glb'] ?? '';
        if (strlen($glb) < 20) {
            // The reader's own words may quote what it read, so they are not passed on.
            throw new UserError(
                'convert.failed',
                sprintf('It cannot be read as %s: %s', strtoupper($ending), Suspicion::of($bytes, $ending)),
                'Export it again, best as GLB.',
            );
        }

        return $glb;
    }

    /** @return array<string, string> our own plain names to bytes */
    private function companions(FileMap $files, string $head): array
    {
        $from = str_contains($head, '/') ? dirname($head).'/' : '';
        $out = [];
        foreach ($files->files as $path => $blob) {
            $ending = FileKinds::ending($path);
            if (
                $path === $head || count($out) >= self::MOST_COMPANIONS
                    || ! (FileKinds::isPicture($path) || in_array($ending, FileKinds::COMPANIONS, true))
            ) {
                continue;
            }
            $name = FileMap::plain($from !== '' && str_starts_with($path, $from) ? substr($path, strlen($from)) : basename($path));
            if ($name === '' || $name === 'out.glb' || str_starts_with($name, 'arrival.') || array_filter(
                explode('/', $name),
                static fn (string $p): bool => strlen($p) > 200,
            ) !== []) {
                continue;
            }
            $out[$name] = References::plain(($files->companionOf($head))($path) ?? '', $ending);
        }

        return $out;
    }

    private function command(): string
    {
        $command = config('reel.assimp');

        return is_string($command) ? $command : 'assimp';
    }
}
