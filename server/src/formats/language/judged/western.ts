/** Fragments of English, German and Dutch; written for this, by hand. */
export const ENGLISH = `
We cycled the whole way to the coast and arrived just before sunset
The bag hangs from the rack and puts up with rain and snow for years
It is hard to say which of the models suits city traffic best
When spring comes we oil the chain and look at the brakes once more
The children would not go home until the ice cream had been eaten
Prices have gone up since autumn because hide has become dearer
On a hot day in July the water lasts no further than the next village
She bought a second hand sewing machine and restitched the straps
I wonder whether anybody has tried washing the cloth without soap
Sales grew by eight per cent during the second quarter
The meeting was moved to Thursday since half the board was ill
Pour off the milk, stir, and let the batter rest for half an hour
The wood behind the house is so dense that you hardly see the sky
Most readers skip the introduction and begin with the pictures
The wind turned north and the boats drew in towards the shore
Nobody knew why the train had stopped in the middle of a field
The town means to build a new footbridge over the river next year
Tyres should be changed when the tread is less than three millimetres deep
The cat prefers to sleep in the basket we had bought for bread
After three weeks the leaven was finally strong enough for a whole loaf
The teacher asked who could explain how light differs from heat
The old quarter was pulled down although many people had protested
Put the potatoes into cold water so that they do not darken
If you are going there anyway you could fetch the parcel for me
The room was small but had two windows that looked onto the harbour
How many times may one apply for the same thing at the office
The orchestra began to play before the audience had sat down
The paper wrote that the harvest was the worst in thirty years
My grandfather used to say that patience is the cheapest tool
The cottage has no electricity but there is a well with good water
The program crashes as soon as you open more than two files
It took a long time before anybody dared to admit the mistake
She went into the kitchen to see whether the coffee was ready
Everybody who comes before eight gets a small present
`;

export const GERMAN = `
Wir sind den ganzen Weg bis zur Küste geradelt und kamen kurz vor Sonnenuntergang an
Die Tasche hängt am Gepäckträger und hält Regen und Schnee viele Jahre aus
Es ist schwer zu sagen, welches der Modelle am besten in die Stadt passt
Wenn der Frühling kommt, ölen wir die Kette und prüfen noch einmal die Bremsen
Die Kinder wollten erst nach Hause, als das Eis gegessen war
Die Preise sind seit dem Herbst gestiegen, weil Leder teurer geworden ist
An einem heißen Tag im Juli reicht das Wasser nur bis zum nächsten Dorf
Sie kaufte eine gebrauchte Nähmaschine und nähte die Riemen am Küchentisch neu
Ich frage mich, ob jemand das Tuch schon einmal ohne Seife gewaschen hat
Der Umsatz wuchs im zweiten Vierteljahr um acht Prozent
Die Sitzung wurde auf Donnerstag verlegt, weil der halbe Vorstand krank war
Die Milch abgießen, umrühren und den Teig eine halbe Stunde ruhen lassen
Der Wald hinter dem Haus ist so dicht, dass man kaum den Himmel sieht
Die meisten Leser überspringen die Einleitung und fangen mit den Bildern an
Der Wind drehte nach Norden und die Boote zogen sich ans Ufer zurück
Niemand wusste, warum der Zug mitten auf dem Feld angehalten hatte
Die Gemeinde will im nächsten Jahr einen neuen Steg über den Fluss bauen
Man sollte Reifen wechseln, wenn das Profil weniger als drei Millimeter tief ist
Die Katze schläft am liebsten in dem Korb, den wir für das Brot gekauft hatten
Nach drei Wochen war der Sauerteig endlich stark genug für ein ganzes Brot
Der Lehrer fragte, wer den Unterschied zwischen Licht und Wärme erklären könne
Das alte Viertel wurde abgerissen, obwohl viele dagegen waren
Die Kartoffeln in kaltes Wasser legen, damit sie nicht dunkel werden
Wenn du ohnehin hingehst, könntest du mir das Paket mitbringen
Das Zimmer war klein, hatte aber zwei Fenster zum Hafen hinaus
Wie oft darf man dasselbe bei der Behörde beantragen
Das Orchester begann zu spielen, bevor das Publikum saß
Die Zeitung schrieb, die Ernte sei die schlechteste seit dreißig Jahren
Mein Großvater pflegte zu sagen, Geduld sei das billigste Werkzeug
Die Hütte hat keinen Strom, aber einen Brunnen mit gutem Wasser
Das Programm stürzt ab, sobald man mehr als zwei Dateien öffnet
Es dauerte lange, bis jemand den Fehler zuzugeben wagte
Sie ging in die Küche, um zu sehen, ob der Kaffee fertig war
Wer vor acht Uhr kommt, erhält ein kleines Geschenk
`;

export const DUTCH = `
We fietsten de hele weg naar de kust en kwamen vlak voor zonsondergang aan
De tas hangt aan de bagagedrager en kan jarenlang tegen regen en sneeuw
Het is moeilijk te zeggen welk model het best in de stad past
Als het voorjaar komt smeren we de ketting en kijken we de remmen nog eens na
De kinderen wilden pas naar huis toen het ijs helemaal op was
De prijzen zijn sinds het najaar gestegen omdat leer duurder is geworden
Op een hete dag in juli komt het water niet verder dan het volgende dorp
Ze kocht een tweedehands naaimachine en naaide de riemen opnieuw
Ik vraag me af of iemand de doek weleens zonder zeep heeft gewassen
De omzet groeide in het tweede kwartaal met acht procent
De vergadering werd naar donderdag verplaatst omdat het halve bestuur ziek was
Giet de melk af, roer om en laat het beslag een halfuur rusten
Het bos achter het huis is zo dicht dat je de lucht nauwelijks ziet
De meeste lezers slaan de inleiding over en beginnen bij de plaatjes
De wind draaide naar het noorden en de boten trokken naar de kant
Niemand wist waarom de trein midden in het veld was gestopt
De gemeente wil volgend jaar een nieuwe voetbrug over de rivier bouwen
Je moet banden vervangen als het profiel minder dan drie millimeter diep is
De kat slaapt het liefst in de mand die we voor het brood hadden gekocht
Na drie weken was het zuurdesem eindelijk sterk genoeg voor een heel brood
De leraar vroeg wie het verschil tussen licht en warmte kon uitleggen
De oude wijk werd gesloopt hoewel veel mensen ertegen waren
Leg de aardappelen in koud water zodat ze niet donker worden
Als je er toch heen gaat kun je het pakje voor me meenemen
De kamer was klein maar had twee ramen die uitkeken op de haven
Hoe vaak mag je hetzelfde bij de overheid aanvragen
Het orkest begon te spelen voordat het publiek zat
De krant schreef dat de oogst de slechtste in dertig jaar was
Mijn grootvader zei altijd dat geduld het goedkoopste gereedschap is
Het huisje heeft geen stroom maar wel een put met goed water
Het programma loopt vast zodra je meer dan twee bestanden opent
Het duurde lang voordat iemand de fout durfde toe te geven
Ze ging naar de keuken om te kijken of de koffie klaar was
Iedereen die voor acht uur komt krijgt een klein cadeau
`;
