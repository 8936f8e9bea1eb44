<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Scenes\SceneStream;
use CrispReel\Core\Bake\PoseStream;

final class BakeCommand extends ReelCommand
{
    protected $signature = 'reel:bake {scene} {--from=} {--to=} {--out= : folder to write the blocks into} {--json}';

    protected $description = 'Compute the pose stream; prints counts and time';

    protected function work(): int
    {
        $begin = hrtime(true);
        $scene = app(SceneStream::class)->compile($this->scene($this->argument('scene')));
        $compiled = hrtime(true);
        $from = intdiv($this->whole('from') ?? 0, PoseStream::BLOCK);
        $to = (int) ceil(min($this->whole('to') ?? $scene->frames, $scene->frames) / PoseStream::BLOCK);
        $out = $this->option('out');
        if ($out !== null && ! is_dir($out) && ! @mkdir($out, 0o775, true)) {
            throw new \App\Exceptions\UserError(
                'bake.out',
                "The folder \"{$out}\" cannot be made.",
                'Give a folder that you may write in.',
            );
        }
        $blocks = [];
        $bytes = 0;
        for ($n = $from; $n < $to; $n++) {
            $hash = PoseStream::hash($scene, $n);
            $block = PoseStream::block($scene, $n);
            $bytes += strlen($block);
            $blocks[] = ['n' => $n, 'hash' => $hash, 'bytes' => strlen($block)];
            if ($out !== null) {
                file_put_contents("{$out}/{$hash}.crps", $block);
            }
        }
        $ms = (hrtime(true) - $compiled) / 1e6;
        $data = [
            'frames' => $scene->frames, 'blocks' => $blocks, 'bytes' => $bytes, 'compileMs' => round(($compiled - $begin) / 1e6, 2),
            'bakeMs' => round($ms, 2),
            'items' => count($scene->order), 'performers' => count($scene->lanes),
        ];

        return $this->answer(
            $data,
            [sprintf(
                '%d frames, %d blocks, %d bytes; settled in %.1f ms, baked in %.1f ms.',
                $scene->frames,
                count($blocks),
                $bytes,
                $data['compileMs'],
                $ms,
            )],
        );
    }
}
