<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Exceptions\UserError;
use App\Models\RenderJob;
use App\Renders\Encoder;
use App\Renders\FramePainter;
use App\Renders\FrameStore;
use App\Renders\RenderDesk;

final class RenderCommand extends ReelCommand
{
    protected $signature = 'reel:render {scene} {--from=} {--to=} {--size= : as 1280x720} {--out= : file to write} {--as=mp4 : mp4, webm or png} {--quality=final : final or draft} {--loudness=-14 : LUFS of its sound} {--json}';

    protected $description = 'Render a scene to a video or a zip of pictures';

    protected function work(): int
    {
        $wish = array_filter(['from' => $this->whole('from'), 'to' => $this->whole('to')], static fn (?int $v): bool => $v !== null);
        $size = $this->option('size');
        if ($size !== null) {
            if (preg_match('/^(\d{2,4})x(\d{2,4})$/', $size, $m) !== 1) {
                throw new UserError('render.size', "\"{$size}\" is not a picture size.", 'Write it as 1280x720.');
            }
            $wish += ['width' => (int) $m[1], 'height' => (int) $m[2]];
        }
        $as = $this->option('as');
        if (! in_array($as, ['mp4', 'webm', 'png'], true)) {
            throw new UserError(
                'render.format',
                '"'.(is_string($as) ? $as : '?').'" is not a format that is written.',
                'Use --as=mp4, --as=webm or --as=png.',
            );
        }
        $desk = app(RenderDesk::class);
        $job = $desk->prepare($this->scene($this->argument('scene')), null, $wish + [
            'format' => $as, 'quality' => $this->option('quality'), 'loudness' => SoundCommand::loudness($this->option('loudness')),
        ]);
        $this->draw($job);
        $result = app(FrameStore::class)->result($job);
        $out = $this->option('out') ?? getcwd().'/'.$job->file_name;
        if (! @copy($result, $out)) {
            throw new UserError('render.out', "\"{$out}\" cannot be written.", 'Give a file in a folder that you may write in.');
        }

        return $this->answer(
            [
                'file' => $out, 'frames' => $job->frames(), 'width' => $job->width, 'height' => $job->height, 'bytes' => filesize($out),
                'msPerFrame' => $job->ms_per_frame,
            ],
            ["{$out}: {$job->frames()} frames, {$job->width} x {$job->height}."],
        );
    }

    private function draw(RenderJob $job): void
    {
        $frames = app(FrameStore::class);
        $begin = microtime(true);
        $first = null;
        $job->update(['status' => 'drawing', 'started_at' => now()]);
        app(FramePainter::class)
            ->paint($job, $frames->missing($job, $job->from_frame, $job->to_frame), function (int $drawn) use ($job, &$first): bool {
                $first ??= [microtime(true), $drawn];
                $pace = $drawn > $first[1] ? (microtime(true) - $first[0]) / ($drawn - $first[1]) : null;
                $this->say(sprintf(
                    '%d of %d frames%s',
                    $drawn,
                    $job->frames(),
                    $pace === null ? '' : sprintf(', %d s left', (int) ceil(($job->frames() - $drawn) * $pace)),
                ));
                if ($pace !== null) {
                    $job->update(['ms_per_frame' => $pace * 1000]);
                }

                return true;
            });
        app(Encoder::class)->join($job);
        $job->update(['status' => 'done', 'finished_at' => now(), 'bytes' => app(FrameStore::class)->resultBytes($job)]);
        $job->chunks()->update(['status' => 'done']);
        $this->say(sprintf('Drawn and encoded in %.1f s', microtime(true) - $begin));
    }
}
