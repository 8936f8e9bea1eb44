<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Exceptions\UserError;
use App\Scenes\SceneStream;
use CrispReel\Core\Bake\PoseStream;
use CrispReel\Core\Bake\Track;
use CrispReel\Core\Bake\TrackNames;
use CrispReel\Core\Compile\CompiledScene;

final class BakeCommand extends ReelCommand
{
    protected $signature = 'reel:bake {scene} {--from=} {--to=} {--out= : folder to write the pieces into} {--json}';

    protected $description = 'Compute the pose stream; prints counts and time';

    protected function work(): int
    {
        $begin = hrtime(true);
        $scene = app(SceneStream::class)->compile($this->scene($this->argument('scene')));
        $compiled = hrtime(true);
        $from = intdiv($this->whole('from') ?? 0, PoseStream::PIECE);
        $to = (int) ceil(min($this->whole('to') ?? $scene->frames, $scene->frames) / PoseStream::PIECE);
        $pieces = $this->baked($scene, $from, $to, $this->folder());
        $bytes = array_sum(array_column($pieces, 'bytes'));
        $ms = (hrtime(true) - $compiled) / 1e6;
        $data = [
            'frames' => $scene->frames, 'pieces' => $pieces, 'bytes' => $bytes, 'compileMs' => round(($compiled - $begin) / 1e6, 2),
            'bakeMs' => round($ms, 2),
            'items' => count($scene->order), 'performers' => count($scene->lanes),
        ];

        return $this->answer(
            $data,
            [sprintf(
                '%d frames, %d pieces, %d bytes; settled in %.1f ms, baked in %.1f ms.',
                $scene->frames,
                count($pieces),
                $bytes,
                $data['compileMs'],
                $ms,
            )],
        );
    }

    private function folder(): ?string
    {
        $out = $this->option('out');
        if ($out !== null && ! is_dir($out) && ! @mkdir($out, 0o775, true)) {
            throw new UserError('bake.out', "The folder \"{$out}\" cannot be made.", 'Give a folder that you may write in.');
        }

        return $out;
    }

    /** @return list<array{track: string, n: int, name: string, bytes: int}> */
    private function baked(CompiledScene $scene, int $from, int $to, ?string $out): array
    {
        $tracks = PoseStream::moving($scene);
        $names = new TrackNames($scene);
        $pieces = [];
        for ($n = $from; $n < $to; $n++) {
            foreach (PoseStream::bake($scene, $tracks, $n) as $k => $bytes) {
                $name = $names->of($tracks[$k], $n);
                $pieces[] = ['track' => $tracks[$k]->id, 'n' => $n, 'name' => $name, 'bytes' => strlen($bytes)];
                if ($out !== null) {
                    file_put_contents("{$out}/{$name}.f32", $bytes);
                }
            }
        }
        if ($out !== null) {
            $all = [...array_values(PoseStream::items($scene)), ...array_values(PoseStream::cameras($scene))];
            $told = array_map(static fn (Track $t): array => ['id' => $t->id] + $t->toArray(), $all);
            file_put_contents("{$out}/tracks.json", json_encode(['tracks' => $told, 'pieces' => $pieces], JSON_THROW_ON_ERROR));
        }

        return $pieces;
    }
}
