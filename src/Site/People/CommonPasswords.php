<?php

declare(strict_types=1);

namespace Verjuicer\App\Site\People;

use Symfony\Component\DependencyInjection\Attribute\Autowire;

/** Rules for passwords: long, and not a common guess. */
final readonly class CommonPasswords
{
    public const LEAST = 10;
    private const MOST = 200;

    public function __construct(
        #[Autowire('%kernel.project_dir%/node_modules/@zxcvbn-ts/language-common/src/passwords.json')]
        private string $list,
    ) {
    }

    /**
     * @param list<string> $known public facts of the person: login, name, initials, site
     *
     * @return string|null key of the sentence about the problem
     */
    public function problem(string $password, array $known): ?string
    {
        $length = mb_strlen($password);
        if ($length < self::LEAST || $length > self::MOST) {
            return 'people.problem.length';
        }
        $bare = preg_replace('/[^\pL\pN]+/u', '', mb_strtolower($password)) ?? '';
        foreach ($known as $word) {
            $bare = $word === '' ? $bare : str_replace(mb_strtolower($word), '', $bare);
        }
        // "harvest2026!" is harvest with a common suffix.
        $core = rtrim($bare, '0123456789');
        $common = $this->list();
        $isCommon = isset($common[mb_strtolower($password)]) || isset($common[$bare]) || isset($common[$core]);

        return $isCommon || \count(array_unique(mb_str_split($bare))) < 5 ? 'people.problem.common' : null;
    }

    /** @return array<string, int> */
    private function list(): array
    {
        /** @var list<string> $list */
        $list = json_decode((string) file_get_contents($this->list), true, flags: \JSON_THROW_ON_ERROR);

        return array_flip($list);
    }
}
