<?php

declare(strict_types=1);

namespace Tests\Browser\Pages;

use Facebook\WebDriver\Chrome\ChromeDevToolsDriver;
use Facebook\WebDriver\Exception\ElementClickInterceptedException;
use Facebook\WebDriver\Exception\ElementNotInteractableException;
use Facebook\WebDriver\Exception\StaleElementReferenceException;
use Facebook\WebDriver\Exception\TimeoutException;
use Facebook\WebDriver\Interactions\WebDriverActions;
use Facebook\WebDriver\Remote\RemoteWebDriver;
use Facebook\WebDriver\Remote\RemoteWebElement;
use Facebook\WebDriver\WebDriverBy;
use Facebook\WebDriver\WebDriverKeys;

/** The application as a person handles it: by clicks, drags and keys. */
final class WorkspacePage
{
    public function __construct(private readonly RemoteWebDriver $driver)
    {
    }

    public function see(string $css, float $seconds = 60.0): RemoteWebElement
    {
        return $this->until(fn () => array_values(array_filter(
            $this->driver->findElements(WebDriverBy::cssSelector($css)), static fn (RemoteWebElement $e): bool => $e->isDisplayed(),
        ))[0] ?? null, $css, $seconds);
    }

    public function count(string $css): int
    {
        return count($this->driver->findElements(WebDriverBy::cssSelector($css)));
    }

    /**
     * Does something to an element that is seen. What the page draws anew between the look and the hand is looked for again.
     *
     * @template T
     *
     * @param  callable(RemoteWebElement): T  $act
     * @return T
     */
    public function on(string $css, callable $act): mixed
    {
        return $this->acting(fn (): RemoteWebElement => $this->see($css), $act, $css);
    }

    /**
     * @template T
     *
     * @param  callable(): ?RemoteWebElement  $find
     * @param  callable(RemoteWebElement): T  $act
     * @return T
     */
    private function acting(callable $find, callable $act, string $what): mixed
    {
        [$done] = $this->until(static function () use ($find, $act): ?array {
            $element = $find();

            return $element === null ? null : [$act($element)];
        }, $what);

        return $done;
    }

    public function click(string $css): void
    {
        $this->on($css, static fn (RemoteWebElement $e) => $e->click());
    }

    /** A button by its words. */
    public function press(string $text, string $tag = 'button'): void
    {
        $path = sprintf('//%s[normalize-space(.)="%s"]', $tag, $text);
        $this->acting(fn (): ?RemoteWebElement => array_values(array_filter(
            $this->driver->findElements(WebDriverBy::xpath($path)), static fn (RemoteWebElement $e): bool => $e->isDisplayed(),
        ))[0] ?? null, static fn (RemoteWebElement $e) => $e->click(), $path);
    }

    public function fill(string $css, string $text): void
    {
        $this->on($css, static function (RemoteWebElement $field) use ($text): void {
            $field->clear();
            $field->sendKeys($text);
        });
    }

    /** Types over a field of the card and leaves it. */
    public function set(string $label, string $text): void
    {
        $this->on("input[aria-label=\"{$label}\"]", static function (RemoteWebElement $field) use ($text): void {
            $field->click();
            $field->sendKeys([WebDriverKeys::CONTROL, 'a', WebDriverKeys::NULL, $text, WebDriverKeys::ENTER]);
        });
    }

    public function text(string $css): string
    {
        return trim($this->on($css, static fn (RemoteWebElement $e): string => $e->getText()));
    }

    public function attribute(string $css, string $name): string
    {
        return $this->on($css, static fn (RemoteWebElement $e): string => (string) $e->getAttribute($name));
    }

    public function value(string $css): string
    {
        return $this->attribute($css, 'value');
    }

    public function enabled(string $css): bool
    {
        return $this->on($css, static fn (RemoteWebElement $e): bool => $e->isEnabled());
    }

    /** A choice or a slider is given a value, as a change by hand tells the page of it. */
    public function give(string $css, string $value): void
    {
        $this->on(
            $css,
            fn (RemoteWebElement $e) => $this->driver->executeScript(
                'arguments[0].value = arguments[1]; for (const e of ["input", "change"]) arguments[0].dispatchEvent(new Event(e, {bubbles: true}))',
                [$e, $value],
            ),
        );
    }

    public function hover(string $css): void
    {
        $this->on($css, fn (RemoteWebElement $e) => (new WebDriverActions($this->driver))->moveToElement($e)->perform());
    }

    public function key(string ...$keys): void
    {
        $this->driver->executeScript('document.activeElement && document.activeElement.blur()');
        (new WebDriverActions($this->driver))->sendKeys(null, implode('', $keys))->perform();
    }

    /** Ctrl (with Shift) and a letter. */
    public function chord(string $letter, bool $shift = false): void
    {
        $this->driver->executeScript('document.activeElement && document.activeElement.blur()');
        $a = new WebDriverActions($this->driver);
        $a->keyDown(null, WebDriverKeys::CONTROL);
        if ($shift) {
            $a->keyDown(null, WebDriverKeys::SHIFT);
        }
        $a->sendKeys(null, $letter);
        if ($shift) {
            $a->keyUp(null, WebDriverKeys::SHIFT);
        }
        $a->keyUp(null, WebDriverKeys::CONTROL)->perform();
    }

    /** Presses, moves in steps and lets go. */
    public function drag(string $css, int $dx, int $dy, int $fromX = 0, int $fromY = 0): void
    {
        $this->on($css, function (RemoteWebElement $element) use ($dx, $dy, $fromX, $fromY): void {
            $a = (new WebDriverActions($this->driver))->moveToElement($element, $fromX ?: null, $fromY ?: null)->clickAndHold();
            // As a hand moves: what is dragged stays under the pointer.
            $steps = max(6, (int) ceil(hypot($dx, $dy) / 5));
            for ($i = 1; $i <= $steps; $i++) {
                $a->moveByOffset(
                    (int) round($dx * $i / $steps) - (int) round($dx * ($i - 1) / $steps),
                    (int) round($dy * $i / $steps) - (int) round($dy * ($i - 1) / $steps),
                );
            }
            $a->release()->perform();
        });
    }

    public function choose(string $label, string $option): void
    {
        $this->on("select[aria-label=\"{$label}\"]", static function (RemoteWebElement $list) use ($label, $option): void {
            foreach ($list->findElements(WebDriverBy::tagName('option')) as $o) {
                if (trim($o->getText()) === $option) {
                    $o->click();

                    return;
                }
            }
            throw new \RuntimeException("\"{$label}\" has no choice \"{$option}\".");
        });
    }

    /** A click so many pixels from the middle of an element. */
    public function pressAt(string $css, int $dx, int $dy): void
    {
        $this->on(
            $css,
            fn (RemoteWebElement $e) => (new WebDriverActions($this->driver))->moveToElement($e, $dx, $dy)->clickAndHold()->release()
                ->perform(),
        );
    }

    /** HTML drag and drop on to a place of another element (its centre and an offset). */
    public function dropOn(string $from, string $to, int $dx = 0, int $dy = 0): void
    {
        $this->see($from);
        $this->see($to);
        $this->driver->executeScript(<<<'JS'
            const [from, to] = [document.querySelector(arguments[0]), document.querySelector(arguments[1])];
            const r = to.getBoundingClientRect(), data = new DataTransfer();
            const at = {clientX: r.left + r.width / 2 + arguments[2], clientY: r.top + r.height / 2 + arguments[3], bubbles: true, cancelable: true, dataTransfer: data};
            from.dispatchEvent(new DragEvent('dragstart', at));
            to.dispatchEvent(new DragEvent('dragover', at));
            to.dispatchEvent(new DragEvent('drop', at));
            JS, [$from, $to, $dx, $dy]);
    }

    /**
     * Drags files or folders from the disk over an element and lets them go there, as the desktop would.
     *
     * @param  list<string>  $paths
     */
    public function letGo(string $css, array $paths): void
    {
        $r = $this->on(
            $css,
            fn (RemoteWebElement $e): mixed => $this->driver->executeScript(
                'const r = arguments[0].getBoundingClientRect(); return [r.left + r.width / 2, r.top + r.height / 2]',
                [$e],
            ),
        );
        $tools = new ChromeDevToolsDriver($this->driver);
        $send = static fn (string $type): mixed => $tools->execute('Input.dispatchDragEvent', [
            'type' => $type,
            'x' => $r[0],
            'y' => $r[1],
            'data' => ['items' => [], 'files' => $paths, 'dragOperationsMask' => 1],
        ]);
        $seen = fn (string $what): int => (int) $this->driver->executeScript('return window.seenOfDrag[arguments[0]]', [$what]);
        $this->driver->executeScript(
            "window.seenOfDrag = {dragover: 0, drop: 0}; for (const e of ['dragover', 'drop']) addEventListener(e, () => window.seenOfDrag[e]++, {capture: true})"
        );
        // A busy page answers late, and a drop before its answer to the drag is lost: as a hand does, the drag goes on until it is taken.
        for ($try = 0; $try < 5 && $seen('drop') === 0; $try++) {
            $send('dragEnter');
            $before = $seen('dragover');
            $this->until(static function () use ($send, $seen, $before): bool {
                $send('dragOver');

                return $seen('dragover') > $before + 1;
            }, 'the drag to be noticed', 60.0);
            $send('drop');
            for ($wait = 0; $wait < 160 && $seen('drop') === 0; $wait++) {
                usleep(50_000);
            }
        }
        if ($seen('drop') === 0) {
            throw new TimeoutException('The page did not take what was let go over it.');
        }
    }

    public function revision(): int
    {
        return (int) $this->on('[data-testid=workspace]', static fn (RemoteWebElement $e): ?string => $e->getAttribute('data-revision'));
    }

    /** Does something and waits until the server has taken an edit. */
    public function editing(callable $act): void
    {
        $before = $this->revision();
        $act();
        $this->until(fn (): bool => $this->revision() > $before, 'an edit to be taken');
        $this->saved();
    }

    public function saved(): void
    {
        $this->until(fn (): bool => $this->text('[data-testid=saving]') === 'saved', 'everything to be saved');
    }

    public function goTo(string $time): void
    {
        $this->click('[data-testid=timecode]');
        $this->on(
            'input[aria-label="Go to time or frame"]',
            static fn (RemoteWebElement $e) => $e->sendKeys([
                WebDriverKeys::CONTROL, 'a', WebDriverKeys::NULL, $time, WebDriverKeys::ENTER,
            ]),
        );
        $this->see('[data-testid=timecode]');
    }

    public function frame(): int
    {
        return (int) $this->on('[data-testid=frame]', static fn (RemoteWebElement $e): ?string => $e->getAttribute('data-frame'));
    }

    /** Mean brightness (0 to 255) and spread of the picture in the frame pane. @return array{float, float} */
    public function picture(): array
    {
        /** @var array{float, float} $found */
        $found = $this->driver->executeScript(<<<'JS'
            const c = document.querySelector('[data-testid=frame]'), s = document.createElement('canvas');
            if (!c || !c.width || !c.height) return [0, 0];
            s.width = 64; s.height = 36;
            const x = s.getContext('2d');
            x.drawImage(c, 0, 0, 64, 36);
            const d = x.getImageData(0, 0, 64, 36).data;
            let sum = 0, sq = 0, n = d.length / 4;
            for (let i = 0; i < d.length; i += 4) { const l = (d[i] + d[i + 1] + d[i + 2]) / 3; sum += l; sq += l * l; }
            return [sum / n, Math.sqrt(Math.max(0, sq / n - (sum / n) ** 2))];
            JS);

        return $found;
    }

    public function until(callable $test, string $what, float $seconds = 60.0): mixed
    {
        $end = microtime(true) + $seconds;
        do {
            try {
                $found = $test();
            } catch (StaleElementReferenceException|ElementNotInteractableException|ElementClickInterceptedException) {
                $found = null;
            }
            if ($found) {
                return $found;
            }
            usleep(60_000);
        } while (microtime(true) < $end);
        throw new TimeoutException("Waited {$seconds} s for: {$what}\n".$this->whatIsThere());
    }

    /** What the page shows when what was waited for is not there: where it is, its words, and what it complained of. */
    private function whatIsThere(): string
    {
        try {
            return sprintf(
                "At %s, which is %s and says: %s\nComplaints: %s",
                $this->driver->getCurrentURL(), $this->driver->executeScript('return document.readyState'),
                mb_substr(preg_replace('/\s+/', ' ', $this->driver->findElement(WebDriverBy::tagName('body'))->getText()), 0, 400),
                mb_substr((string) json_encode(array_column($this->driver->manage()->getLog('browser'), 'message')), 0, 600),
            );
        } catch (\Throwable $e) {
            return 'The browser does not answer: '.$e->getMessage();
        }
    }
}
