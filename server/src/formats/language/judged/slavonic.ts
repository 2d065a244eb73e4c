/** Fragments of Czech and Slovak, which are near each other, and Polish; written for this, by hand. */
export const CZECH = `
Jeli jsme na kole celou cestu k moři a dorazili těsně před západem slunce
Brašna visí na nosiči a vydrží déšť i sníh po mnoho let
Těžko říct, který z modelů se do města hodí nejlépe
Když přijde jaro, namažeme řetěz a ještě jednou zkontrolujeme brzdy
Děti nechtěly jít domů, dokud nesnědly všechnu zmrzlinu
Ceny od podzimu stouply, protože kůže je dražší
Za horkého dne v červenci vystačí voda jen do další vesnice
Koupila si použitý šicí stroj a přešila popruhy na kuchyňském stole
Zajímalo by mě, jestli už někdo pral plachtu bez mýdla
Prodej vzrostl ve druhém čtvrtletí o osm procent
Schůze se přesunula na čtvrtek, protože půlka výboru byla nemocná
Slijte mléko, zamíchejte a nechte těsto půl hodiny odpočinout
Les za domem je tak hustý, že skoro není vidět nebe
Většina čtenářů přeskočí úvod a začne u obrázků
Vítr se stočil k severu a lodě se přiblížily ke břehu
Nikdo nevěděl, proč vlak najednou zastavil uprostřed pole
Město chce příští rok postavit přes řeku novou lávku
Pneumatiky je třeba vyměnit, když je vzorek mělčí než tři milimetry
Kočka nejraději spí v košíku, který jsme koupili na chleba
Po třech týdnech byl kvásek konečně dost silný na celý bochník
Učitel se ptal, kdo umí vysvětlit rozdíl mezi světlem a teplem
Starou čtvrť zbourali, i když se mnoho lidí bouřilo
Brambory dejte do studené vody, aby vám nezčernaly
Když tam stejně půjdeš, mohl bys mi přinést ten balík
Pokoj byl malý, ale měl dvě okna do přístavu
Kolikrát se smí na úřadě žádat o totéž
Orchestr začal hrát dřív, než se obecenstvo posadilo
Noviny psaly, že úroda je nejhorší za třicet let
Můj dědeček říkával, že trpělivost je nejlevnější nářadí
Chalupa nemá elektřinu, ale je tam studna s dobrou vodou
Program spadne, jakmile otevřete víc než dva soubory
Trvalo dlouho, než se někdo odvážil chybu přiznat
Šla do kuchyně podívat se, jestli už je hotová káva
Kdo přijde před osmou, dostane od nás malý dárek
`;

export const SLOVAK = `
Išli sme na bicykli celú cestu k moru a dorazili tesne pred západom slnka
Brašna visí na nosiči a vydrží dážď aj sneh dlhé roky
Ťažko povedať, ktorý z modelov sa do mesta hodí najlepšie
Keď príde jar, namažeme reťaz a ešte raz skontrolujeme brzdy
Deti nechceli ísť domov, kým nezjedli všetku zmrzlinu
Ceny od jesene stúpli, pretože koža je drahšia
Za horúceho dňa v júli vystačí voda len do ďalšej dediny
Kúpila si použitý šijací stroj a prešila popruhy na kuchynskom stole
Zaujímalo by ma, či už niekto pral plachtu bez mydla
Predaj vzrástol v druhom štvrťroku o osem percent
Schôdza sa presunula na štvrtok, lebo polovica výboru bola chorá
Zlejte mlieko, zamiešajte a nechajte cesto pol hodiny odpočinúť
Les za domom je taký hustý, že skoro nevidno nebo
Väčšina čitateľov preskočí úvod a začne pri obrázkoch
Vietor sa otočil na sever a lode sa priblížili k brehu
Nikto nevedel, prečo vlak zrazu zastal uprostred poľa
Mesto chce budúci rok postaviť cez rieku novú lávku
Pneumatiky treba vymeniť, keď je vzorka plytšia než tri milimetre
Mačka najradšej spí v košíku, ktorý sme kúpili na chlieb
Po troch týždňoch bol kvások konečne dosť silný na celý bochník
Učiteľ sa pýtal, kto vie vysvetliť rozdiel medzi svetlom a teplom
Starú štvrť zbúrali, hoci sa mnoho ľudí búrilo
Zemiaky dajte do studenej vody, aby vám nesčerneli
Keď tam aj tak pôjdeš, mohol by si mi priniesť ten balík
Izba bola malá, ale mala dve okná do prístavu
Koľkokrát sa smie na úrade žiadať o to isté
Orchester začal hrať skôr, než sa obecenstvo posadilo
Noviny písali, že úroda je najhoršia za tridsať rokov
Starý otec hovorieval, že trpezlivosť je najlacnejšie náradie
Chalupa nemá elektrinu, ale je tam studňa s dobrou vodou
Program spadne, len čo otvoríte viac než dva súbory
Trvalo dlho, kým sa niekto odvážil chybu priznať
Išla do kuchyne pozrieť sa, či je už hotová káva
Kto príde pred ôsmou, dostane od nás malý darček
`;

export const POLISH = `
Jechaliśmy rowerem całą drogę nad morze i dotarliśmy tuż przed zachodem słońca
Torba wisi na bagażniku i przez wiele lat wytrzymuje deszcz i śnieg
Trudno powiedzieć, który z modeli najlepiej nadaje się do miasta
Kiedy przychodzi wiosna, oliwimy łańcuch i jeszcze raz sprawdzamy hamulce
Dzieci nie chciały wracać do domu, dopóki nie zjadły lodów
Ceny wzrosły od jesieni, ponieważ skóra jest droższa
W upalny lipcowy dzień wody starcza tylko do następnej wsi
Kupiła używaną maszynę do szycia i przeszyła paski na kuchennym stole
Zastanawiam się, czy ktoś już prał płótno bez mydła
Sprzedaż wzrosła w drugim kwartale o osiem procent
Zebranie przeniesiono na czwartek, bo połowa zarządu była chora
Odlej mleko, zamieszaj i zostaw ciasto na pół godziny
Las za domem jest tak gęsty, że prawie nie widać nieba
Większość czytelników pomija wstęp i zaczyna od obrazków
Wiatr skręcił na północ i łodzie zbliżyły się do brzegu
Nikt nie wiedział, dlaczego pociąg zatrzymał się w środku pola
Gmina chce w przyszłym roku zbudować nową kładkę przez rzekę
Opony trzeba wymienić, gdy bieżnik ma mniej niż trzy milimetry
Kot najchętniej śpi w koszyku, który kupiliśmy na chleb
Po trzech tygodniach zakwas był wreszcie dość mocny na cały bochenek
Nauczyciel zapytał, kto umie wyjaśnić różnicę między światłem a ciepłem
Stara dzielnica została zburzona, choć wielu ludzi protestowało
Włóż ziemniaki do zimnej wody, żeby nie ściemniały
Jeśli i tak tam idziesz, mógłbyś przynieść mi paczkę
Pokój był mały, ale miał dwa okna wychodzące na port
Ile razy można składać ten sam wniosek w urzędzie
Orkiestra zaczęła grać, zanim cała publiczność zdążyła usiąść
Gazeta napisała, że zbiory są najgorsze od trzydziestu lat
Mój dziadek mawiał, że cierpliwość jest najtańszym narzędziem
Chata nie ma prądu, ale jest studnia z dobrą wodą
Program zawiesza się, gdy tylko otworzy się więcej niż dwa pliki
Minęło dużo czasu, zanim ktoś odważył się przyznać do błędu
Poszła do kuchni zobaczyć, czy kawa jest gotowa
Kto przyjdzie przed ósmą, dostanie od nas mały prezent
`;
