<?php

declare(strict_types=1);

namespace LucidStep\Tests\Feature\People;

use Illuminate\Support\Facades\Artisan;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Hash;
use Illuminate\Support\Facades\Mail;
use Illuminate\Support\Facades\Storage;
use LucidStep\App\Areas\Mail\PlainMail;
use LucidStep\App\Models\Membership;
use LucidStep\App\Models\User;
use LucidStep\Core\Access\Role;
use LucidStep\Tests\Support\FeatureTestCase;

/**
 * The demo comes into an installation of one's own and goes again without a trace.
 */
final class DemoTest extends FeatureTestCase
{
    private User $owner;

    protected function setUp(): void
    {
        parent::setUp();
        config(['lucid.demo' => false, 'lucid.demo_password' => 'the demo of nobody']);
        $this->owner = $this->world->person('owns', Role::Admin);
    }

    public function test_it_is_one_project_more_and_leaves_nothing_behind(): void
    {
        $before = $this->rows();
        $files = Storage::disk()->allFiles();
        self::assertSame(0, Artisan::call('lucid:demo', ['--add' => $this->owner->email]), Artisan::output());
        $this->as($this->owner, 'GET', '/projects/SKR/overview')->assertOk();
        self::assertNotSame($files, Storage::disk()->allFiles());
        $people = User::query()->where('email', 'like', '%@skerrywick.test')->get();
        self::assertCount(7, $people);
        foreach ($people as $person) {
            self::assertFalse(Hash::check('the demo of nobody', $person->password));
            self::assertFalse($person->is_owner);
        }
        self::assertSame(1, Artisan::call('lucid:demo', ['--add' => $this->owner->email]), 'not twice');
        self::assertSame(0, Artisan::call('lucid:demo', ['--remove' => true]));
        self::assertSame($before, $this->rows());
        self::assertSame($files, Storage::disk()->allFiles());
        $this->as($this->owner, 'GET', '/projects/SKR/overview')->assertNotFound();
        $this->as($this->owner, 'GET', '/projects/TST/overview')->assertOk();
    }

    public function test_whoever_of_it_has_part_in_something_else_stays(): void
    {
        Artisan::call('lucid:demo', ['--add' => $this->owner->email]);
        $maren = User::query()->where('email', 'maren@skerrywick.test')->firstOrFail();
        Membership::query()->create(['project_id' => $this->world->project->id, 'user_id' => $maren->id, 'role' => Role::Tester]);
        self::assertSame(0, Artisan::call('lucid:demo', ['--remove' => true]));
        self::assertStringContainsString('maren@skerrywick.test stays', Artisan::output());
        self::assertSame(['maren@skerrywick.test'], User::query()->where('email', 'like', '%@skerrywick.test')->pluck('email')->all());
    }

    public function test_it_comes_for_somebody_who_is_there_and_is_not_taken_out_of_a_demo(): void
    {
        self::assertSame(1, Artisan::call('lucid:demo', ['--add' => 'nobody@bakery.test']));
        self::assertStringContainsString('Nobody has the mail address', Artisan::output());
        config(['lucid.demo' => true]);
        self::assertSame(1, Artisan::call('lucid:demo', ['--remove' => true]));
        self::assertFalse(DB::table('projects')->where('code', 'SKR')->exists());
    }

    public function test_no_mail_leaves_for_its_people(): void
    {
        config(['mail.default' => 'array']);
        $send = static fn(string $to): mixed => Mail::mailer('array')->to($to)->send(new PlainMail('A word', 'x'));
        $send('maren@skerrywick.test');
        $send('ana@bakery.test');
        $sent = app('mail.manager')->mailer('array')->getSymfonyTransport();
        self::assertInstanceOf(\Illuminate\Mail\Transport\ArrayTransport::class, $sent);
        $to = $sent->messages()->map(static fn($m): string => $m->getEnvelope()->getRecipients()[0]->getAddress());
        self::assertSame(['ana@bakery.test'], $to->all());
    }

    /**
     * @return array<string, int> by table how many rows it has
     */
    private function rows(): array
    {
        $rows = [];
        foreach (DB::select("select tablename as name from pg_tables where schemaname = 'public' order by 1") as $table) {
            if (!\in_array($table->name, ['migrations', 'cache', 'cache_locks', 'jobs'], true)) {
                $rows[(string) $table->name] = DB::table((string) $table->name)->count();
            }
        }

        return $rows;
    }
}
