<?php

declare(strict_types=1);

namespace LucidStep\Tests\Support;

use Facebook\WebDriver\Exception\NoSuchElementException;
use Facebook\WebDriver\Exception\NoSuchFrameException;
use Facebook\WebDriver\WebDriverBy;
use Facebook\WebDriver\WebDriverKeys;
use PHPUnit\Framework\Assert;

/**
 * What only some stories need of a tester: windows, the clipboard, a full device, what a page weighs and how accessible it is.
 */
trait TesterSkills
{
    /**
     * Lets the device refuse whatever would be kept on it, as the browser does when there is no room; until the page is
     * loaded again, or room is made. A quota set from outside does not bind IndexedDB.
     */
    public function room(bool $there): self
    {
        $this->script(
            <<<'JS'
            const store = IDBObjectStore.prototype;
            window.roomy ??= { add: store.add, put: store.put };
            const full = function () { throw new DOMException('There is no room.', 'QuotaExceededError'); };
            Object.assign(store, arguments[0] ? window.roomy : { add: full, put: full });
            JS
            ,
            $there,
        );

        return $this;
    }

    /**
     * Pastes a real picture, as after a screenshot.
     */
    public function pastePicture(): self
    {
        $done = $this->browser->executeAsyncScript(
            <<<'JS'
            const done = arguments[0];
            const canvas = document.createElement('canvas');
            canvas.width = 640; canvas.height = 360;
            const c = canvas.getContext('2d');
            c.fillStyle = '#EEF5F6'; c.fillRect(0, 0, 640, 360); c.fillStyle = '#0B4A5E'; c.fillRect(40, 40, 200 + Math.random() * 100, 60);
            canvas.toBlob(async (blob) => {
                try { await navigator.clipboard.write([new ClipboardItem({ 'image/png': blob })]);
                done('ok');
                } catch (e) { done(String(e));
                }
            });
            JS
            ,
        );
        Assert::assertSame('ok', $done);

        return $this->chord(WebDriverKeys::CONTROL, 'v');
    }

    /**
     * Runs a script in the page under test that the handset frames.
     */
    public function inHandset(string $script, mixed ...$arguments): mixed
    {
        $to = $this->browser->switchTo();
        try {
            $to->frame($this->browser->findElement(WebDriverBy::cssSelector('.handset iframe')));
            $to->frame(0);

            return $this->browser->executeScript($script, $arguments);
        } catch (NoSuchElementException | NoSuchFrameException) {
            return null;
        } finally {
            $to->defaultContent();
        }
    }

    /**
     * Pastes text, as after copying rows in a spreadsheet.
     */
    public function pasteText(string $text): self
    {
        Assert::assertSame(
            'ok',
            $this->browser->executeAsyncScript(
                'const [text, done] = arguments; navigator.clipboard.writeText(text).then(() => done("ok"), (e) => done(String(e)));',
                [$text],
            ),
        );

        return $this->chord(WebDriverKeys::CONTROL, 'v');
    }

    /**
     * Presses keys while others are held.
     *
     * @param  list<string>  $held
     */
    public function held(array $held, string $key): self
    {
        $keyboard = $this->browser->getKeyboard();
        foreach ($held as $one) {
            $keyboard->pressKey($one);
        }
        $keyboard->sendKeys($key);
        foreach (array_reverse($held) as $one) {
            $keyboard->releaseKey($one);
        }
        usleep(80_000);

        return $this;
    }

    /**
     * What axe finds wrong on the page, WCAG 2.2 AA.
     *
     * @return list<string>
     */
    public function faultsOfAccess(): array
    {
        $this->script((string) file_get_contents(__DIR__ . '/../../node_modules/axe-core/axe.min.js'));
        // In the dark only the colours are others.
        $which = $this->dark
            ? ['type' => 'rule', 'values' => ['color-contrast', 'link-in-text-block']]
            : ['type' => 'tag', 'values' => ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice']];
        $found = $this->browser->executeAsyncScript(
            "const [which, done] = arguments; axe.run(document, { resultTypes: ['violations'], preload: false, " .
                "runOnly: which }).then((r) => done(r.violations.map((v) => v.id + ': ' + v.nodes.map((n) => " .
                "n.html.slice(0, 160) + ' ' + (n.any[0]?.message ?? '')).join(' | '))));",
            [$which],
        );

        return array_values(array_map(strval(...), (array) $found));
    }

    /**
     * How many bytes of scripts, styles and fonts the page loaded, as they came over the wire.
     *
     * @param  string  $later part of the names of those that a page is painted without
     *
     * @return array{int, int} what the first paint needs, and what came later
     */
    public function loadedBytes(string $later): array
    {
        $sizes = (array) $this->script(
            "const all = performance.getEntriesByType('resource').filter((r) => r.name.includes('/build/')); " .
                'const of = (later) => all.filter((r) => r.name.includes(arguments[0]) === later).reduce((sum, r) => sum + ' .
                'r.encodedBodySize, 0); return [of(false), of(true)]',
            $later,
        );

        return [(int) $sizes[0], (int) $sizes[1]];
    }

    /**
     * @return list<string> the names of what the device keeps of the server's answers and of drafts
     */
    public function kept(): array
    {
        return array_values(
            array_map(
                strval(...),
                (array) $this->script(
                    "return new Promise((done) => { const open = indexedDB.open('lucid-step'); open.onsuccess = () => { const all = " .
                        "open.result.transaction('kept').objectStore('kept').getAllKeys(); all.onsuccess = () => " .
                        '{ open.result.close(); done(all.result); }; }; })',
                ),
            ),
        );
    }

    public function picture(string $file): void
    {
        $this->browser->takeScreenshot($file);
    }

    /**
     * How many windows there are, small ones among them.
     */
    public function windows(): int
    {
        return \count($this->browser->getWindowHandles());
    }

    /**
     * Opens a page in a tab of its own, beside those there are.
     */
    public function openTab(string $path): self
    {
        $this->browser->switchTo()->newWindow();

        return $this->open($path);
    }

    public function toWindow(int $number): self
    {
        $this->browser->switchTo()->window($this->browser->getWindowHandles()[$number]);

        return $this;
    }
}
