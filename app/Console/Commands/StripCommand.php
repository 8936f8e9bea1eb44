<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Exceptions\UserError;
use App\Renders\ContactStrip;

final class StripCommand extends ReelCommand
{
    protected $signature = 'reel:strip {scene} {--from=0} {--to= : last frame} {--every=6} {--out= : PNG file to write} {--size=320x180 : of one picture} {--columns=4}
        {--camera= : letter of a camera, in place of what is cut} {--at= : x,y,z of a free view} {--look= : x,y,z that it looks at} {--focal=35} {--json}';

    protected $description = 'Draw frames of a scene side by side into one picture';

    protected function work(): int
    {
        if (preg_match('/^(\d{2,4})x(\d{2,4})$/', (string) $this->option('size'), $m) !== 1) {
            throw new UserError('strip.size', "\"{$this->option('size')}\" is not a picture size.", 'Write it as 320x180.');
        }
        $view = array_filter(
            ['camera' => $this->option('camera'), 'at' => $this->point('at'), 'look' => $this->point('look')],
            static fn (mixed $v): bool => $v !== null,
        );
        if (isset($view['at']) !== isset($view['look'])) {
            throw new UserError('strip.view', 'A free view needs a place and something to look at.', 'Give both --at and --look.');
        }
        $from = $this->whole('from') ?? 0;
        [$png, $frames] = app(ContactStrip::class)->draw(
            $this->scene($this->argument('scene')), $from, $this->whole('to') ?? $from + 71, $this->whole('every') ?? 6, (int) $m[1],
            (int) $m[2], $this->whole('columns') ?? 4,
            $view + ['focal' => max(4.0, (float) $this->option('focal'))],
        );
        $out = $this->option('out') ?? getcwd().'/strip.png';
        if (@file_put_contents($out, $png) === false) {
            throw new UserError('strip.out', "\"{$out}\" cannot be written.", 'Give a file in a folder that you may write in.');
        }

        return $this->answer(
            ['file' => $out, 'frames' => $frames, 'bytes' => strlen($png)],
            [sprintf('%s: %d frames.', $out, count($frames))],
        );
    }

    /** @return list<float>|null */
    private function point(string $option): ?array
    {
        $v = $this->option($option);
        if ($v === null) {
            return null;
        }
        $parts = array_map(trim(...), explode(',', $v));
        if (count($parts) !== 3 || array_filter($parts, is_numeric(...)) !== $parts) {
            throw new UserError('strip.point', "\"{$v}\" is not a place.", "Write --{$option}=x,y,z in metres.");
        }

        return array_map(floatval(...), $parts);
    }
}
