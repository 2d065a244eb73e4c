/** Fragments of Swedish and Danish, which are near each other; written for this, by hand. */
export const SWEDISH = `
Vi cyklade hela vägen till kusten och kom fram strax före solnedgången
Väskan hänger på pakethållaren och tål både regn och snö i många år
Det är svårt att säga vilken av modellerna som passar bäst i stadstrafik
När våren kommer smörjer vi kedjan och kontrollerar bromsarna en gång till
Barnen ville inte gå hem förrän glassen var slut och lamporna hade tänts
Priset har stigit sedan i höstas eftersom läder har blivit dyrare
En varm dag i juli räcker vattnet inte längre än till nästa by
Hon köpte en begagnad symaskin och sydde om remmarna på köksbordet
Jag undrar om någon har provat att tvätta duken utan tvättmedel
Försäljningen ökade med åtta procent under det andra kvartalet
Mötet flyttades till torsdagen därför att halva styrelsen var sjuk
Häll av mjölken, rör om och låt smeten vila i en halvtimme
Skogen bakom huset är så tät att man knappt ser himlen
De flesta läsare hoppar över inledningen och börjar med bilderna
Vinden vred mot norr och båtarna drog sig mot land
Ingen visste varför tåget hade stannat mitt ute på åkern
Kommunen tänker bygga en ny gångbro över ån nästa år
Man bör byta däck när mönstret är mindre än tre millimeter djupt
Katten sover helst i korgen som vi egentligen hade köpt till bröd
Efter tre veckor var surdegen äntligen stark nog för ett helt bröd
Läraren frågade vem som kunde förklara skillnaden mellan ljus och värme
Det gamla kvarteret revs trots att många hade protesterat
Lägg potatisen i kallt vatten så att den inte mörknar
Om du ändå ska dit kan du hämta paketet åt mig
Rummet var litet men hade två fönster som vette mot hamnen
Hur många gånger får man söka samma tjänst hos myndigheten
Orkestern började spela redan innan publiken hade satt sig
Tidningen skrev att skörden blivit sämre än på trettio år
Min farfar brukade säga att tålamod är det billigaste verktyget
Sommarstugan saknar el men har en brunn med gott vatten
Programmet kraschar så fort man öppnar mer än två filer
Det dröjde länge innan någon vågade erkänna misstaget
Hon gick ut i köket för att se om kaffet var klart
Alla som kommer före klockan åtta får en liten present
`;

export const DANISH = `
Vi cyklede hele vejen ud til kysten og nåede frem lige før solnedgang
Tasken hænger på bagagebæreren og tåler både regn og sne i mange år
Det er svært at sige hvilken af modellerne der passer bedst i byen
Når foråret kommer smører vi kæden og ser bremserne efter en gang til
Børnene ville ikke gå hjem før isen var spist og lygterne var tændt
Prisen er steget siden efteråret fordi læder er blevet dyrere
På en varm dag i juli rækker vandet ikke længere end til næste landsby
Hun købte en brugt symaskine og syede remmene om på køkkenbordet
Jeg gad vide om nogen har prøvet at vaske dugen uden sæbe
Salget voksede med otte procent i løbet af andet kvartal
Mødet blev flyttet til torsdag fordi halvdelen af bestyrelsen var syg
Hæld mælken fra, rør rundt og lad dejen hvile en halv time
Skoven bag huset er så tæt at man knap kan se himlen
De fleste læsere springer indledningen over og begynder med billederne
Vinden drejede mod nord og bådene trak ind mod land
Ingen vidste hvorfor toget var standset midt ude på marken
Kommunen vil bygge en ny gangbro over åen til næste år
Man bør skifte dæk når mønstret er mindre end tre millimeter dybt
Katten sover helst i kurven som vi egentlig havde købt til brød
Efter tre uger var surdejen endelig stærk nok til et helt brød
Læreren spurgte hvem der kunne forklare forskellen på lys og varme
Det gamle kvarter blev revet ned selv om mange havde protesteret
Læg kartoflerne i koldt vand så de ikke bliver mørke
Hvis du alligevel skal derhen kan du hente pakken for mig
Værelset var lille men havde to vinduer ud mod havnen
Hvor mange gange må man søge det samme hos myndighederne
Orkestret begyndte at spille allerede før publikum havde sat sig
Avisen skrev at høsten var blevet dårligere end i tredive år
Min farfar plejede at sige at tålmodighed er det billigste værktøj
Sommerhuset har ingen strøm men en brønd med godt vand
Programmet går ned så snart man åbner mere end to filer
Der gik lang tid før nogen turde indrømme fejlen
Hun gik ud i køkkenet for at se om kaffen var færdig
Alle der kommer før klokken otte får en lille gave
`;
