<?php

declare(strict_types=1);

use App\Demo\HalfPastTheTide;
use App\Models\RenderJob;
use App\Renders\FramePainter;
use App\Renders\FrameStore;
use App\Renders\RenderDesk;
use Facebook\WebDriver\WebDriverKeys;

test('what was done is there after a reload, and undo and redo go on from it', function (): void {
    [, $user, $path] = furnished($this);
    $driver = $this->open('/');
    $this->signIn($driver, $user->email, 'a long enough word', $path);
    $page = $this->workspace($driver);
    $page->click('[data-testid=lane-Oda]');
    $page->editing(fn () => $page->set('Facing (deg)', '45'));
    $page->editing(fn () => $page->set('Place x (m)', '60cm'));
    $driver->navigate()->refresh();
    $page->click('[data-testid=lane-Oda]');
    $value = fn (string $label): string => (string) $page->value("input[aria-label=\"{$label}\"]");
    expect($value('Place x (m)'))->toBe('0.6')->and($value('Facing (deg)'))->toBe('45');
    $page->editing(fn () => $page->chord('z'));
    expect($value('Place x (m)'))->toBe('0');
    $page->editing(fn () => $page->chord('z'));
    expect($value('Facing (deg)'))->toBe('90');
    $page->editing(fn () => $page->chord('z', shift: true));
    expect($value('Facing (deg)'))->toBe('45');
    $page->editing(fn () => $page->click('[data-testid=redo]'));
    expect($value('Place x (m)'))->toBe('0.6');
});

test('two windows on one scene: what one does arrives in the other', function (): void {
    [, $user, $path] = furnished($this);
    $one = $this->open('/');
    $this->signIn($one, $user->email, 'a long enough word', $path);
    $a = $this->workspace($one);
    $a->see('[data-testid=lane-Oda]');
    $two = $this->open('/');
    $this->signIn($two, $user->email, 'a long enough word', $path);
    $b = $this->workspace($two);
    $b->click('[data-testid=lane-Bram]');
    $b->see('input[aria-label="Facing (deg)"]');
    $a->click('[data-testid=lane-Bram]');
    $a->editing(fn () => $a->set('Facing (deg)', '12.5'));
    $b->until(fn () => $b->value('input[aria-label="Facing (deg)"]') === '12.5', 'the other window\'s edit', 60);
    $b->until(fn () => str_contains($two->getPageSource(), 'with Tess Ribeiro'), 'who else is here', 60);
    $b->click('[data-testid=lane-Oda]');
    $b->editing(fn () => $b->set('Facing (deg)', '33'));
    $a->until(fn () => $a->revision() === $b->revision(), 'both windows to agree', 60);
    $a->click('[data-testid=lane-Oda]');
    expect($a->value('input[aria-label="Facing (deg)"]'))->toBe('33');
});

test('play, step, shuttle and typed times', function (): void {
    [$scene, $user, $path] = furnished($this);
    // Nearly three minutes: it does not come round to its beginning, however late the key is pressed.
    $this->edit($scene, [['do' => 'beat.add', 'item' => 'Oda', 'motion' => 'idle', 'start' => 4000]]);
    $driver = $this->open('/');
    $this->signIn($driver, $user->email, 'a long enough word', $path);
    $page = $this->workspace($driver);
    $page->until(fn () => $page->picture()[1] > 12, 'a picture that is not plain');
    expect($page->picture()[0])->toBeGreaterThan(30.0);
    $page->key(WebDriverKeys::ARROW_RIGHT, WebDriverKeys::ARROW_RIGHT);
    expect($page->frame())->toBe(2);
    $page->goTo('00:00:01:06');
    expect($page->frame())->toBe(30);
    $page->goTo('2.5s');
    expect($page->frame())->toBe(60)->and($page->text('[data-testid=timecode]'))->toBe('00:00:02:12');
    $page->key('i');
    $page->key(WebDriverKeys::HOME);
    expect($page->frame())->toBe(60);
    // Time is kept while playing: a second and a half is 36 frames, whatever the drawing manages.
    $started = microtime(true);
    $page->key(' ');
    $page->until(fn (): bool => $page->frame() >= 90, 'frame 90');
    $page->key(' ');
    $took = microtime(true) - $started;
    expect($page->frame() - 60)->toBeLessThan($took * 24 + 6)->toBeGreaterThan(25);
    $page->key('j');
    $page->until(fn (): bool => $page->frame() < 80, 'to run backwards');
    $page->key('k');
});

test('one selection everywhere: lane, plan, picture and floor list', function (): void {
    [, $user, $path] = furnished($this);
    $driver = $this->open('/');
    $this->signIn($driver, $user->email, 'a long enough word', $path);
    $page = $this->workspace($driver);
    $page->until(fn () => $page->picture()[1] > 12, 'the picture');
    $name = fn (): string => (string) $page->value('[data-testid=card] input[aria-label=Name]');
    $page->click('[data-testid=lane-Bram]');
    expect($name())->toBe('Bram');
    $page->click('[data-testid=step-Block]');
    $page->click('[data-testid=floor-Oda]');
    expect($name())->toBe('Oda');
    $page->click('[data-testid=plan-item-Bram]');
    expect($name())->toBe('Bram');
    // The camera looks straight along -z: Oda stands a third from the left of the picture's middle row.
    $page->key(WebDriverKeys::ESCAPE);
    expect($page->count('[data-testid=card]'))->toBe(0);
    $frame = $page->see('[data-testid=frame]');
    $size = $frame->getSize();
    (new Facebook\WebDriver\Interactions\WebDriverActions($driver))
        ->moveToElement($frame, (int) round($size->getWidth() * (0.5 - 1.2 / 6.0 * 35 / 36) - $size->getWidth() / 2), 40)->click()
        ->perform();
    $page->until(fn (): bool => $page->count('[data-testid=card]') > 0 && $name() === 'Oda', 'Oda to be selected in the picture');
});

test('moving and turning by hand in the picture', function (): void {
    [$scene, $user, $path] = furnished($this);
    $driver = $this->open('/');
    $this->signIn($driver, $user->email, 'a long enough word', $path);
    $page = $this->workspace($driver);
    $page->until(fn () => $page->picture()[1] > 12, 'the picture');
    $page->click('[data-testid=lane-Oda]');
    $page->see('[data-testid=turn-knob]');
    $page->editing(fn () => $page->drag('[data-testid=turn-knob]', -70, 10));
    $heading = $scene->items()->where('name', 'Oda')->value('heading_deg');
    expect(abs($heading - 90))->toBeGreaterThan(20.0);
    $frame = $page->see('[data-testid=frame]');
    $w = $frame->getSize()->getWidth();
    $page->editing(fn () => $page->drag('[data-testid=frame]', 70, 0, (int) round($w * -1.2 / 6.0 * 35 / 36), 40));
    $x = $scene->items()->where('name', 'Oda')->value('x');
    expect($x)->toBeGreaterThan(0.3)->toBeLessThan(2.0);
    // Escape lets go without an edit.
    $before = $page->revision();
    $a = (new Facebook\WebDriver\Interactions\WebDriverActions($driver))->moveToElement($page->see('[data-testid=turn-knob]'))
        ->clickAndHold()->moveByOffset(-30, -5);
    $a->sendKeys(null, WebDriverKeys::ESCAPE)->release()->perform();
    $page->saved();
    expect($page->revision())->toBe($before);
});

test('a wrong number is marked and nothing typed is lost; a refused edit says why', function (): void {
    [, $user, $path] = furnished($this);
    $driver = $this->open('/');
    $this->signIn($driver, $user->email, 'a long enough word', $path);
    $page = $this->workspace($driver);
    $page->click('[data-testid=lane-Oda]');
    $page->set('Scale', 'big');
    $field = $page->see('input[aria-label=Scale]');
    expect($field->getAttribute('aria-invalid'))->toBe('true')->and($field->getAttribute('value'))->toBe('big');
    $page->set('Scale', '99999');
    $page->until(fn () => str_contains($page->text('[data-testid=notice]'), 'scale'), 'the reason');
});

/** Mean difference of two pictures' channels, 0 to 255, over every second pixel each way. */
function meanDifference(GdImage $one, GdImage $other): float
{
    $sum = $n = 0;
    for ($y = 0; $y < imagesy($one); $y += 2) {
        for ($x = 0; $x < imagesx($one); $x += 2) {
            [$a, $b] = [imagecolorat($one, $x, $y), imagecolorat($other, $x, $y)];
            $sum += abs(($a >> 16 & 255) - ($b >> 16 & 255)) + abs(($a >> 8 & 255) - ($b >> 8 & 255)) + abs(($a & 255) - ($b & 255));
            $n += 3;
        }
    }

    return $sum / $n;
}

test('a frame of the render equals the workspace\'s picture of it', function (): void {
    [$scene, $user, $path] = furnished($this);
    config(['queue.default' => 'null', 'queue.connections.null' => ['driver' => 'null']]);
    $job = app(RenderDesk::class)
        ->start($scene, $user, ['width' => 640, 'height' => 360, 'from' => 0, 'to' => 96, 'format' => 'png', 'quality' => 'draft']);
    app(FramePainter::class)->paint($job, [30], static fn (): bool => true);
    $render = imagecreatefromstring(app(FrameStore::class)->read($job, 30));
    app(FrameStore::class)->clear($job);
    RenderJob::query()->whereKey($job->id)->delete();

    $driver = $this->open('/');
    $this->signIn($driver, $user->email, 'a long enough word', $path);
    $page = $this->workspace($driver);
    $page->until(fn () => $page->picture()[1] > 12, 'the picture');
    $page->goTo('30');
    // The workspace draws at the size of its pane: ask its drawing for the render's size and compare pixel by pixel.
    $data = $driver->executeAsyncScript(<<<'JS'
        const done = arguments[0];
        setTimeout(() => {
            const painter = window.crispReelWorkspace.painter(), view = window.crispReelWorkspace.view();
            painter.resize(640, 360);
            painter.draw(window.crispReelWorkspace.block(), 30, view);
            painter.draw(window.crispReelWorkspace.block(), 30, view);
            done(painter.renderer.domElement.toDataURL('image/png'));
        }, 400);
        JS);
    $workspace = imagecreatefromstring((string) base64_decode(substr((string) $data, 22)));
    expect(meanDifference($render, $workspace))->toBeLessThan(2.0);
});

test('the demo opens for its person and plays', function (): void {
    $scene = app(HalfPastTheTide::class)->load();
    $driver = $this->open('/');
    $this->signIn($driver, 'demo@crisp-reel.example', 'half-past-the-tide', "/scenes/{$scene->id}");
    $page = $this->workspace($driver);
    $page->until(fn () => $page->picture()[1] > 12, 'the picture', 90);
    expect($page->count('[data-testid^=shot-]'))->toBe(11)->and($page->text('[data-testid=view-label]'))->toStartWith('Camera A');
    $page->key(WebDriverKeys::ARROW_DOWN);
    $page->until(fn () => str_starts_with($page->text('[data-testid=view-label]'), 'Camera H'), 'the second shot');
});

test('levels of detail draw a fraction of the triangles and the picture stays', function (): void {
    $scene = app(HalfPastTheTide::class)->load();
    $driver = $this->open('/');
    $this->signIn($driver, 'demo@crisp-reel.example', 'half-past-the-tide', "/scenes/{$scene->id}");
    $page = $this->workspace($driver);
    $page->until(fn () => $page->picture()[1] > 12, 'the picture', 90);
    [$full, $thin, $fullTriangles, $thinTriangles] = $driver->executeAsyncScript(<<<'JS'
        const done = arguments[0], w = window.crispReelWorkspace, painter = w.painter(), view = w.view(), block = w.block();
        painter.resize(640, 360);
        const shadow = Object.getPrototypeOf(painter.stage).fitShadow;
        const shot = (factor) => {
            const fine = painter.stage.fineness, before = fine.tolerancePx;
            fine.tolerancePx *= factor;
            painter.stage.fitShadow = (...a) => { shadow.apply(painter.stage, a); fine.shadowMetres *= factor; };
            painter.draw(block, 20, view);
            painter.draw(block, 20, view);
            const triangles = painter.facts().triangles;
            fine.tolerancePx = before;
            return [painter.renderer.domElement.toDataURL('image/png'), triangles];
        };
        w.settled().then(() => {
            const [full, a] = shot(0), [thin, b] = shot(1);
            done([full, thin, a, b]);
        });
        JS);
    $decode = static fn (string $url): GdImage => imagecreatefromstring((string) base64_decode(substr($url, 22)));
    expect($thinTriangles)->toBeLessThan(0.5 * $fullTriangles)
        ->and(meanDifference($decode($full), $decode($thin)))->toBeLessThan(4.0);
});

test('the ruler: a click goes there, the playhead is dragged by its head, and a shot is entered where it is clicked', function (): void {
    $scene = app(HalfPastTheTide::class)->load();
    $driver = $this->open('/');
    $this->signIn($driver, 'demo@crisp-reel.example', 'half-past-the-tide', "/scenes/{$scene->id}");
    $page = $this->workspace($driver);
    $page->until(fn () => $page->picture()[1] > 12, 'the picture', 90);
    $page->drag('[data-testid=ruler]', 1, 0);
    $middle = $page->frame();
    expect($middle)->toBeGreaterThan(300)->toBeLessThan(700);
    $page->drag('[data-testid=playhead]', 120, 0);
    expect($page->frame())->toBeGreaterThan($middle + 60)->toBeLessThan($middle + 180);
    $before = $page->frame();
    $page->click('[data-testid=shot-060]');
    $page->until(fn () => $page->frame() !== $before, 'the shot');
    // In the middle of the shot, where it was clicked, and not at its first frame.
    $in = (int) $scene->shots()->where('label', '060')->value('in_frame') ?: (int) $scene->shots()->orderBy('sort')->get()[4]->in_frame;
    expect($page->frame())->toBeGreaterThan($in + 8);
});

test('who stands in a thing is noted, and the note leads aside by its button; the plan shows what stands there', function (): void {
    [$scene, $user] = furnished($this);
    $this->edit($scene, [['do' => 'item.add', 'asset' => 'hand-cart', 'position' => [0.1, 0, 0.5], 'name' => 'Cart']]);
    [$page] = $this->desk($user, $scene);
    $page->until(fn (): bool => $page->text('[data-testid=notes]') === 'notes: 1', 'the note', 60.0);
    $page->until(fn (): bool => $page->count('[data-testid=floor-plan]') > 1, 'the plans of sets and things');
    $page->click('[data-testid=notes]');
    expect($page->text('[data-testid=note-0]'))->toContain('Oda stands in "Cart"');
    $page->editing(fn () => $page->click('[data-testid=mend-0]'));
    $page->until(fn (): bool => $page->text('[data-testid=notes]') === 'notes: none', 'nobody in anything');
    // Beside the cart on the deck, and not on its bed.
    $oda = $scene->items()->where('name', 'Oda')->firstOrFail();
    expect(hypot($oda->x, $oda->z - 0.5))->toBeGreaterThan(0.3)->and($oda->y)->toBeLessThan(0.2);
});
