<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\Setup;

use LucidStep\Core\Access\Role;
use LucidStep\Tests\Support\FeatureTestCase;
use LucidStep\Tests\Support\World;

/**
 * What the handset may show: where the project's environments are, and nothing else.
 */
final class HandsetTest extends FeatureTestCase
{
    protected function setUp(): void
    {
        parent::setUp();
        config(['lucid.practice_url' => 'http://127.0.0.1:8089/']);
    }

    public function test_the_frame_loads_from_the_addresses_of_the_project_and_from_nowhere_else(): void
    {
        $lead = $this->world->lead();
        $listed = [
            ['name' => 'Staging', 'address' => 'https://staging.example:8443/booking'],
            ['name' => 'Staging, fares', 'address' => 'https://staging.example:8443/fares'],
        ];
        $this->as($lead, 'PUT', '/projects/TST/environments', ['environments' => $listed])->assertOk();
        $now = $this->as($lead, 'GET', '/projects/TST/walk-setup')->json('handset');
        self::assertSame(['Practice page', 'Staging', 'Staging, fares'], array_column($now, 'name'));
        self::assertSame([true, false, false], array_column($now, 'built_in'));
        $reader = $this->world->person('reader', Role::Reader);
        $frame = fn(string $address) => $this->as($reader, 'GET', '/projects/TST/handset?address=' . rawurlencode($address));
        foreach (['https://staging.example:8443/elsewhere?a="><script>', 'http://127.0.0.1:8089/#/rules'] as $address) {
            $page = $frame($address)->assertOk();
            $rules = (string) $page->headers->get('Content-Security-Policy');
            self::assertStringContainsString('frame-src http://127.0.0.1:8089 https://staging.example:8443;', $rules);
            self::assertStringStartsWith("default-src 'none';", $rules);
            self::assertStringNotContainsString('unsafe', $rules);
            self::assertStringContainsString('src="' . e($address) . '"', (string) $page->getContent());
            self::assertStringContainsString(' sandbox="allow-scripts ', (string) $page->getContent());
            self::assertStringNotContainsString('<script', (string) $page->getContent());
            self::assertStringNotContainsString('top-navigation', (string) $page->getContent());
        }
        foreach (['https://staging.example/', 'http://staging.example:8443/', 'https://elsewhere.example/', '/practice/', ''] as $address) {
            $frame($address)->assertUnprocessable()->assertJsonPath('errors.address.0', 'The project does not list this address.');
        }
        $this->as($reader, 'GET', '/projects/TST/handset?address[]=https://staging.example:8443')->assertUnprocessable();
        $this->as($reader, 'GET', '/projects/TST/handset')->assertUnprocessable();
    }

    public function test_a_project_does_not_show_what_another_lists(): void
    {
        $other = new World('OTH');
        $this->as($other->lead(), 'PUT', '/projects/OTH/environments', [
            'environments' => [['name' => 'Inner', 'address' => 'https://inner.example']],
        ])->assertOk();
        $mine = $this->world->lead();
        $this->as($mine, 'GET', '/projects/TST/handset?address=https://inner.example')->assertUnprocessable();
        $this->as($mine, 'GET', '/projects/OTH/handset?address=https://inner.example')->assertNotFound();
        self::assertStringNotContainsString('inner', (string) $this->as($mine, 'GET', '/projects/TST/walk-setup')->getContent());
        self::assertStringNotContainsString('inner', (string) $this->get('/')->headers->get('Content-Security-Policy'));
    }

    public function test_without_a_demo_there_is_no_practice_page(): void
    {
        foreach ([[false, []], [true, ['http://127.0.0.1:8089/']]] as [$demo, $shown]) {
            config(['lucid.demo' => $demo]);
            $setup = $this->as($this->world->lead(), 'GET', '/projects/TST/walk-setup')->assertOk();
            self::assertSame($shown, array_column((array) $setup->json('handset'), 'address'));
            $this->getJson('/api/v1/welcome')->assertJsonPath('practice_url', $shown[0] ?? null);
        }
    }
}
