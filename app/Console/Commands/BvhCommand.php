<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Exceptions\UserError;
use App\Scenes\SceneStream;
use CrispReel\Core\Format\Bvh\BvhWriter;
use CrispReel\Core\Math\Placement;
use CrispReel\Core\Math\Q4;
use CrispReel\Core\Math\V3;
use CrispReel\Core\Rig\Posture;

final class BvhCommand extends ReelCommand
{
    protected $signature = 'reel:bvh {scene} {performer} {--from=0} {--to= : end frame, exclusive} {--out= : file to write} {--json}';

    protected $description = "Write a performer's motion as BVH, in the scene's space";

    protected function work(): int
    {
        $scene = app(SceneStream::class)->compile($this->scene($this->argument('scene')));
        $who = $this->argument('performer');
        $id = null;
        foreach ($scene->document->items as $item) {
            $id = $item->name === $who || $item->id === $who ? $item->id : $id;
        }
        $lane = $id === null ? null : $scene->lanes[$id] ?? null;
        if ($id === null || $lane === null) {
            throw new UserError(
                'bvh.performer',
                "There is no performer \"{$who}\" in this scene.",
                'Give the name of one of its performers.',
            );
        }
        $from = $this->whole('from') ?? 0;
        $to = min($scene->frames, $this->whole('to') ?? $scene->frames);
        if ($to - $from < 2 || $from < 0) {
            throw new UserError('bvh.range', "Frames {$from} to {$to} are no motion.", 'Give a range of at least two frames.');
        }
        $rows = [];
        for ($f = $from; $f < $to; $f++) {
            $moment = $scene->poses->at($f);
            $rows[] = $this->inScene($moment->row($id), $moment->place($id), $lane->figure->skeleton, $lane->figure->hips);
        }
        $out = $this->option('out') ?? getcwd()."/{$who}.bvh";
        if (@file_put_contents(
            $out,
            BvhWriter::write($lane->figure->skeleton, $lane->figure->hips, $rows, $scene->document->rate->seconds(1.0)),
        ) === false) {
            throw new UserError('bvh.out', "\"{$out}\" cannot be written.", 'Give a file in a folder that you may write in.');
        }

        return $this->answer(
            ['file' => $out, 'frames' => count($rows), 'joints' => $lane->figure->skeleton->count()],
            [sprintf('%s: %d frames.', $out, count($rows))],
        );
    }

    /**
     * The row with the hips where they are in the scene (metres; a scaled performer keeps its bones).
     *
     * @param  list<float>  $row
     * @return list<float>
     */
    private function inScene(array $row, Placement $place, \CrispReel\Core\Rig\Skeleton $skeleton, int $hips): array
    {
        $p = new Posture($skeleton, $hips, $row);
        [$at, $turn] = $p->at($hips);
        $p->turn($hips, Q4::mul($place->rotation, $turn));
        $p->shiftHips(V3::sub($place->point($at), $at));

        return $p->result();
    }
}
