<?php

declare(strict_types=1);

use App\Models\RenderJob;
use App\Renders\FrameStore;
use Facebook\WebDriver\WebDriverBy;
use Symfony\Component\Process\Process;

/** @return array<string, mixed> */
function probed(string $file): array
{
    $p = new Process([
        'ffprobe', '-v', 'error', '-count_frames', '-select_streams', 'v:0', '-show_entries',
        'stream=codec_name,pix_fmt,width,height,r_frame_rate,nb_read_frames', '-of', 'json', $file,
    ]);
    $p->mustRun();

    return json_decode($p->getOutput(), true)['streams'][0];
}

/** Grey levels of one frame at 64x36. @return list<int> */
function greys(string $file, int $frame): array
{
    $p = new Process([
        'ffmpeg', '-v', 'error', '-i', $file, '-vf', "select=eq(n\\,{$frame}),scale=64:36,format=gray", '-frames:v', '1', '-f',
        'rawvideo', '-',
    ]);
    $p->mustRun();

    return array_values(unpack('C*', $p->getOutput()));
}

function difference(array $a, array $b): float
{
    return array_sum(array_map(static fn (int $x, int $y): int => abs($x - $y), $a, $b)) / count($a);
}

test('from a new account and an empty production to a finished video with a cut', function (): void {
    $driver = $this->open('/');
    $page = $this->workspace($driver);

    // A new account and a production of its own.
    $page->press('I am new here');
    $page->fill('#name', 'Noor Haverkamp');
    $page->fill('#email', uniqid('noor', true).'@crisp-reel.example');
    $page->fill('#password', 'kettle on the hob');
    $page->click('button[type=submit]');
    $page->until(fn () => str_contains($driver->getPageSource(), 'Nothing here yet'), 'the empty list');
    $page->press('Make your first production');
    $page->fill('#production-name', 'The Late Boat');
    $page->press('Make it');
    $page->see('[data-testid=workspace]');

    // Cast: a set by a click, two people and a key by drags on to the plan.
    $page->editing(fn () => $page->click('[data-testid=asset-ferry-pier]'));
    $page->editing(fn () => $page->dropOn('[data-testid=asset-oda-ferrant]', '[data-testid=plan]', -60, 20));
    $page->editing(fn () => $page->dropOn('[data-testid=asset-bram-tiel]', '[data-testid=plan]', 60, 20));
    $page->editing(fn () => $page->dropOn('[data-testid=asset-brass-key]', '[data-testid=plan]', 0, 60));

    // Block: a performer is turned by typing and moved by dragging on the plan.
    $page->click('[data-testid=lane-Oda]');
    $page->editing(fn () => $page->set('Facing (deg)', '90'));
    $page->editing(fn () => $page->drag('[data-testid="plan-item-Oda"]', -20, 0));
    $page->click('[data-testid=lane-Bram]');
    $page->editing(fn () => $page->set('Facing (deg)', '-90deg'));

    // Act: motions on both, the key in a hand from a frame on.
    $page->click('[data-testid=step-Act]');
    $page->editing(fn () => $page->click('[data-testid=asset-talk]'));
    $page->click('[data-testid=lane-Oda]');
    $page->editing(fn () => $page->click('[data-testid=asset-wave]'));
    $page->editing(fn () => $page->drag('[data-testid="beat-Oda-Wave"]', 40, 0));
    $page->editing(fn () => $page->drag('[data-testid="beat-Oda-Wave"]', -40, 0));
    $page->click('[data-testid="lane-Brass key"]');
    $page->editing(fn () => $page->click('[data-testid=carry]'));

    // Cover: a camera from the view, another after turning it, a move of two keys, and a cut.
    $page->click('[data-testid=step-Cover]');
    $page->editing(fn () => $page->click('[data-testid=camera-from-view]'));
    $page->goTo('40');
    $page->drag('[data-testid=frame]', 160, -30, 0, -140);
    $page->until(fn () => $page->text('[data-testid=view-label]') === 'Free view', 'the free view');
    $page->editing(fn () => $page->click('[data-testid=camera-from-view]'));
    $page->goTo('90');
    $page->drag('[data-testid=frame]', -60, 10, 0, -140);
    $page->editing(fn () => $page->click('[data-testid=key-here]'));
    $page->goTo('48');
    $page->editing(fn () => $page->click('[data-testid=cut-to-B]'));
    expect($page->count('[data-testid^=shot-]'))->toBe(2);
    $page->editing(fn () => $page->drag('[data-testid=cut-020]', 12, 0));

    // Finish: 96 frames at 640x360.
    $page->click('[data-testid=step-Finish]');
    $driver->findElement(WebDriverBy::cssSelector('select[aria-label=Size]'))->sendKeys('640');
    $page->fill('input[aria-label=To]', '96');
    $page->click('[data-testid=render]');
    $page->see('[data-testid=render-entry][data-status=done]', 240);
    $page->see('[data-testid=download]');

    $job = RenderJob::query()->latest('created_at')->firstOrFail();
    $file = app(FrameStore::class)->result($job);
    expect(probed($file))->toMatchArray([
        'codec_name' => 'h264', 'pix_fmt' => 'yuv420p', 'width' => 640, 'height' => 360, 'r_frame_rate' => '24/1',
        'nb_read_frames' => '96',
    ]);
    $shots = $job->scene->shots()->orderBy('sort')->get();
    $cut = $shots[1]->in_frame;
    expect($cut)->toBeGreaterThan(48);
    $before = greys($file, $cut - 1);
    expect(array_sum($before) / count($before))->toBeGreaterThan(25.0)
        ->and(difference(greys($file, 2), greys($file, $cut - 2)))->toBeGreaterThan(0.15)
        ->and(difference($before, greys($file, $cut)))->toBeGreaterThan(6.0);
});
