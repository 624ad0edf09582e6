<?php

declare(strict_types=1);

namespace LucidStep\Tests\Support;

use Facebook\WebDriver\Chrome\ChromeOptions;
use Facebook\WebDriver\Exception\ElementClickInterceptedException;
use Facebook\WebDriver\Exception\ElementNotInteractableException;
use Facebook\WebDriver\Exception\NoSuchElementException;
use Facebook\WebDriver\Exception\NoSuchWindowException;
use Facebook\WebDriver\Exception\StaleElementReferenceException;
use Facebook\WebDriver\Remote\DesiredCapabilities;
use Facebook\WebDriver\Remote\RemoteExecuteMethod;
use Facebook\WebDriver\Remote\RemoteWebDriver;
use Facebook\WebDriver\Remote\RemoteWebElement;
use Facebook\WebDriver\WebDriverBy;
use Facebook\WebDriver\WebDriverKeys;
use PHPUnit\Framework\Assert;

/**
 * A person at a browser of their own.
 */
final class Tester
{
    /** Seconds; nobody waits for them where all is well, and a busy machine may need them. */
    private const PATIENCE = 30.0;

    private readonly string $profile;

    private readonly RemoteWebDriver $browser;

    private bool $dark = false;

    public function __construct(
        string $driver,
        private readonly string $base,
        int $width = 1280,
        int $height = 800,
        bool $dark = false,
        ?string $profile = null,
    ) {
        $this->profile = $profile ?? sys_get_temp_dir() . '/lucid-step-' . bin2hex(random_bytes(6));
        $options = new ChromeOptions();
        $options->setBinary('/usr/bin/chromium');
        $options->addArguments([
            '--headless=new',
            '--no-sandbox',
            '--disable-gpu',
            '--disable-quic',
            '--no-first-run',
            '--disable-background-networking',
            '--disable-component-update',
            '--disable-sync',
            '--disable-dev-shm-usage',
            '--window-size=1280,943',
            '--auto-accept-this-tab-capture',
            '--auto-select-tab-capture-source-by-title=Lucid Step',
            '--use-fake-device-for-media-stream',
            "--user-data-dir={$this->profile}",
        ]);
        $wanted = DesiredCapabilities::chrome();
        $wanted->setCapability(ChromeOptions::CAPABILITY, $options);
        $this->browser = RemoteWebDriver::create($driver, $wanted, 30_000, 60_000);
        $this->look($width, $height, $dark);
    }

    /**
     * Becomes somebody else at the same browser: a new tab, nothing on the device, nobody signed in. Beginning a browser
     * takes longer than most tests.
     */
    public function renew(int $width, int $height, bool $dark): self
    {
        $old = $this->browser->getWindowHandles();
        $this->browser->switchTo()->newWindow();
        $new = $this->browser->getWindowHandle();
        foreach ($old as $handle) {
            try {
                $this->browser->switchTo()->window($handle)->close();
            } catch (NoSuchWindowException) {
                // A small window goes with the page that drew it.
            }
        }
        $this->browser->switchTo()->window($new);
        $this->tell('Storage.clearDataForOrigin', ['origin' => $this->base, 'storageTypes' => 'all']);
        $this->tell('Network.clearBrowserCookies');
        $this->tell('Browser.resetPermissions');
        $this->browser->manage()->getLog('browser');
        $this->look($width, $height, $dark);

        return $this;
    }

    private function look(int $width, int $height, bool $dark): void
    {
        $this->dark = $dark;
        $this->tell('Emulation.setDeviceMetricsOverride', [
            'width' => $width,
            'height' => $height,
            'deviceScaleFactor' => 1,
            'mobile' => false,
        ]);
        $this->tell('Browser.grantPermissions', ['permissions' => ['clipboardReadWrite', 'clipboardSanitizedWrite']]);
        $this->tell('Emulation.setEmulatedMedia', ['features' => $dark ? [['name' => 'prefers-color-scheme', 'value' => 'dark']] : []]);
    }

    /**
     * Ends the browser as a power cut would; what it kept on the device stays.
     *
     * @return string the profile, to begin again with
     */
    public function kill(): string
    {
        exec('pkill -9 -f ' . escapeshellarg("user-data-dir={$this->profile}"));
        usleep(400_000);
        @array_map(unlink(...), glob("{$this->profile}/Singleton*") ?: []);

        return $this->profile;
    }

    public function leave(): void
    {
        $this->browser->quit();
        exec('rm -rf ' . escapeshellarg($this->profile));
    }

    public function open(string $path): self
    {
        $this->browser->get($this->base . $path);

        return $this;
    }

    /**
     * Goes to another page of the application without loading it anew, as a link does.
     */
    public function go(string $path): self
    {
        $this->script(
            <<<'JS'
            const state = { ...history.state, back: history.state?.current ?? null, current: arguments[0],
                forward: null, position: (history.state?.position ?? 0) + 1 };
            history.pushState(state, '', arguments[0]);
            dispatchEvent(new PopStateEvent('popstate', { state }));
            JS
            ,
            $path,
        );

        return $this;
    }

    /**
     * @param  string  $to where to go afterwards; those in several projects choose one else
     */
    public function signIn(string $name, string $to = ''): self
    {
        $this->open('/sign-in' . ('' === $to ? '' : "?to={$to}"))
            ->see('This is a demo')
            ->waitFor('#email');
        $this->type('#email', "{$name}@skerrywick.test")
            ->type('#password', 'lantern-on-the-path')
            ->press(WebDriverKeys::ENTER);
        $this->waitFor('header nav');

        return $this;
    }

    /**
     * Presses keys, one after another, wherever the focus is.
     */
    public function press(string ...$keys): self
    {
        foreach ($keys as $key) {
            $this->browser->getKeyboard()->sendKeys($key);
            usleep(60_000);
        }

        return $this;
    }

    public function chord(string $modifier, string $key): self
    {
        $this->browser->getKeyboard()->pressKey($modifier)->sendKeys($key)->releaseKey($modifier);
        usleep(80_000);

        return $this;
    }

    public function type(string $selector, string $text): self
    {
        // Chosen and written over, as a person does: what is only cleared may be drawn again before the first key.
        for ($try = 1; $try <= 3; $try++) {
            $field = $this->waitFor($selector);
            $this->browser->executeScript('arguments[0].focus(); arguments[0].select()', [$field]);
            $this->browser->getKeyboard()->sendKeys('' === $text ? WebDriverKeys::BACKSPACE : $text);
            // A page that was still being drawn put its own words back in between: a person would see that and write again.
            $now = (string) $this->script('return arguments[0].isConnected ? arguments[0].value : ""', $field);
            if ('' === $text || $now === $text || !str_ends_with($now, $text)) {
                break;
            }
        }

        return $this;
    }

    public function choose(string $selector, string $path): self
    {
        $this->waitFor($selector)->sendKeys($path);

        return $this;
    }

    public function click(string $selector, string $words = ''): self
    {
        $this->until("something to click: {$selector} {$words}", function () use ($selector, $words): bool {
            // Found in one call and clicked as a person does: asking each element by itself takes most of a test's time.
            $found = $this->script(
                'const [selector, words] = arguments; return [...document.querySelectorAll(selector)].find((e) => ' .
                    "e.checkVisibility({ visibilityProperty: true }) && (words === '' || e.innerText.includes(words))) ?? null",
                $selector,
                $words,
            );
            if (\is_array($found)) {
                (new RemoteWebElement(new RemoteExecuteMethod($this->browser), (string) array_values($found)[0], true))->click();

                return true;
            }

            return false;
        });

        return $this;
    }

    public function see(string $text, string $in = 'body'): self
    {
        $this->until("to see \"{$text}\" in {$in}", fn(): bool => str_contains($this->text($in), $text));

        return $this;
    }

    public function seeNot(string $text, string $in = 'body'): self
    {
        $this->until("not to see \"{$text}\" in {$in}", fn(): bool => !str_contains($this->text($in), $text));

        return $this;
    }

    public function waitFor(string $selector): RemoteWebElement
    {
        $this->until(
            "for {$selector}",
            fn(): bool => ($this->all($selector)[0] ?? null)?->isDisplayed() === true ||
                ($this->all($selector)[0] ?? null)?->getAttribute('type') === 'file',
        );

        return $this->all($selector)[0];
    }

    public function text(string $selector): string
    {
        return (string) $this->script("return [...document.querySelectorAll(arguments[0])].map((e) => e.innerText).join('\\n')", $selector);
    }

    public function path(): string
    {
        return (string) parse_url($this->browser->getCurrentURL(), PHP_URL_PATH);
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

    public function toWindow(int $number): self
    {
        $this->browser->switchTo()->window($this->browser->getWindowHandles()[$number]);

        return $this;
    }

    public function reload(): self
    {
        $this->browser->navigate()->refresh();

        return $this;
    }

    public function script(string $script, mixed ...$arguments): mixed
    {
        return $this->browser->executeScript($script, $arguments);
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
     * Waits until nothing moves any more: what fades has no contrast of its own yet.
     */
    public function settle(): void
    {
        usleep(120_000);
        $this->until(
            'until nothing moves',
            fn(): bool => true ===
                $this->script(
                    "return document.getAnimations().every((a) => a.playState !== 'running' || " .
                        'a.effect?.getComputedTiming().iterations === Infinity)',
                ),
        );
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
     */
    public function loadedBytes(): int
    {
        return (int) $this->script(
            "return performance.getEntriesByType('resource').filter((r) => r.name.includes('/build/')).reduce((sum, " .
                'r) => sum + r.encodedBodySize, 0)',
        );
    }

    /**
     * @param  array<string, mixed>  $parameters
     */
    public function tell(string $command, array $parameters = []): mixed
    {
        return $this->browser->executeCustomCommand('/session/:sessionId/goog/cdp/execute', 'POST', [
            'cmd' => $command,
            'params' => (object) $parameters,
        ]);
    }

    public function picture(string $file): void
    {
        $this->browser->takeScreenshot($file);
    }

    public function until(string $what, \Closure $true): void
    {
        $end = microtime(true) + self::PATIENCE;
        do {
            try {
                if ($true()) {
                    Assert::assertNotSame('', $what);

                    return;
                }
            } catch (StaleElementReferenceException | NoSuchElementException | ElementClickInterceptedException | ElementNotInteractableException) {
                // The page is being drawn; look again.
            }
            usleep(60_000);
        } while (microtime(true) < $end);
        $this->picture(dirname(__DIR__, 2) . '/var/log/browser-failure-' . getenv('LUCID_TEST_STACK') . '.png');
        Assert::fail(
            "Waited in vain {$what}. At {$this->path()}:\n" .
                mb_substr($this->text('body'), 0, 1500) .
                "\n" .
                json_encode($this->browser->manage()->getLog('browser'), JSON_UNESCAPED_SLASHES),
        );
    }

    /**
     * @return list<RemoteWebElement>
     */
    private function all(string $selector): array
    {
        return array_values($this->browser->findElements(WebDriverBy::cssSelector($selector)));
    }
}
