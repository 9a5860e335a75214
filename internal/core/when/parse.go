package when

import (
	"cmp"
	"regexp"
	"strings"
	"time"

	"verjuice/internal/core/field"
	"verjuice/internal/core/quantity"
)

// Limits of what can be waited for.
const (
	lowC, highC = 20, 110
	longest     = 48 * time.Hour
	// stall is the middle of the cores at which an unwrapped piece stands still, °C: it is seen from 63 to 77.
	stall = 70
)

// signs are the words for what is seen, the longer ones first.
var signs = []struct {
	words *regexp.Regexp
	sign  Sign
}{
	{
		regexp.MustCompile(
			`^(?:a |the )?(?:bark|crust)\b(?: has| is|'s)?(?: set| sets| formed| forms| firm| dry| hard| there| good)*` +
				`(?: (?:does not|doesn't|no longer) scratch(?:es)?(?: off)?)?$`,
		),
		Bark,
	},
	{
		regexp.MustCompile(
			`^(?:the |it |its )?(?:surface |outside |rub )?(?:has |is |looks |feels |gets )?(?:a bit |nice and )?(?:set|dry|tacky)$|` +
				`^(?:the )?(?:surface|outside|rub)(?: has| is)?(?: set| dry| tacky)*$|^(?:there are |some )?dry spots(?: show| appear)?$`,
		),
		Surface,
	},
	{
		regexp.MustCompile(
			`^(?:the |a |it has |good |right |nice |deep |dark |mahogany |red |golden )*colou?r(?: you| i)?(?: is| looks| like| likes| want)*` +
				`(?: right| good| dark| there| nice)*$|` +
				`^(?:it is |it's |it looks |they are |the skin is |skin is |skin )?(?:nice and |a nice |deep |nicely )?` +
				`(?:dark|mahogany|golden|browned|crispy?|crispy skin)(?: enough| brown| red)?(?: and crispy?)?$|^crispy skin$`,
		),
		Colour,
	},
	{
		regexp.MustCompile(`^(?:the |its )?(?:fat )?(?:cap )?(?:has |is |all )*(?:rendered|renders|stays pressed|gives|soft fat)$`),
		Fat,
	},
	{
		regexp.MustCompile(
			`^(?:the )?bones? (?:is |are )?(?:show|shows|showing|visible|stick(?:s|ing)? out|exposed|bare)(?: .*(?:inch|in|cm|mm))?$|` +
				`^(?:the )?(?:meat |it )?(?:has |is )?(?:pull(?:s|ed|ing)?|draw(?:s|n)|shr[aiu]nk) back(?: (?:from|on|off) the bones?)?(?: .*(?:inch|in|cm|mm))?$|` +
				`^pull-?back(?: .*(?:inch|in|cm|mm))?$`,
		),
		Bones,
	},
	{
		regexp.MustCompile(
			`^(?:it is |it's |it feels |the |they are |fork |probe |butter )*(?:soft|tender)(?: like butter| as butter)?$|^like (?:soft )?butter$|` +
				`^(?:the |a )?(?:probe|thermometer|skewer|toothpick|fork) (?:slides|goes|slips) in(?: like butter| easily| softly| without resistance)?$|` +
				`^(?:it |they |the racks? )?bends?(?: until it cracks| and cracks)?$|^(?:it |they )?(?:cracks|bends) when (?:bent|lifted)$|` +
				`^(?:the )?bend test(?: is)?(?: right| good)?$|^(?:it )?(?:wobbles|jiggles)(?: like jelly| like jello)?$`,
		),
		Soft,
	},
}

// moves are the words for other moves, by kind.
var moves = []struct {
	words *regexp.Regexp
	kind  string
}{
	{regexp.MustCompile(`^(?:it |they )?(?:goes|going|go) on(?: the (?:fire|pit))?$|^(?:the )?(?:fire|start)$|^(?:straight|right) away$|^immediately$`), "on"},
	{regexp.MustCompile(`^(?:the |it is )?unwrap(?:ping|ped)?$`), "unwrap"},
	{regexp.MustCompile(`^(?:the |it is |it's |they are )?wrap(?:ping|ped)?$`), "wrap"},
	{
		regexp.MustCompile(
			`^(?:it is |it's |it comes |they come |comes |coming |taking it )?off(?: the (?:fire|pit|smoker))?$|^pull(?:ing|ed)?(?: it)?$|^(?:the )?end$`,
		),
		"off",
	},
	{regexp.MustCompile(`^(?:the )?(?:slicing|slice|knife|pulling)$|^(?:the |it |they )?(?:has |have )?rest(?:ed|s|ing)?$`), "slice"},
	{regexp.MustCompile(`^(?:the )?(?:serving|serve|table|dinner|supper|lunch)$`), "serve"},
}

var (
	joins  = regexp.MustCompile(`\s*(?:,\s*(?:whichever|what ?ever)\b.*|\bwhichever\b.*)$`)
	joined = regexp.MustCompile(` (?:or|and) `)
	lead   = regexp.MustCompile(
		`^(?:as|soon|at|when|whenever|once|if|by|on|with|after|the|core|it|internal|reads?|is|reaches|hits|from|around|about|roughly|first)\s+`,
	)
	clock    = regexp.MustCompile(`^(\d{1,2})(?::(\d{2}))?\s*(am|pm|a\.m\.|p\.m\.|o'clock)?$`)
	ofMove   = regexp.MustCompile(`^(.*?)\s*\b(before|after|past|into)\s+(.+)$`)
	hoursOn  = regexp.MustCompile(`\s+(?:on(?: the (?:fire|pit|smoke))?|in|on smoke)$`)
	everyOne = regexp.MustCompile(
		`^every\s+(.+?)(?:\s*,?\s+(?:from|after|once|when|starting|(during|for|in))\s+(.+?))?(?:\s*,?\s+(?:until|till|to|up to)\s+(.+))?$`,
	)
)

// Parse reads a moment as cooks say it: "71 °C", "after 8 h", "bark set", "30 min before
// serving", "07:00", and two of them joined by or, or by and. The error is a field.Wrong.
func Parse(typed string) (When, error) {
	text := said(plain(typed))
	text = joins.ReplaceAllString(text, "")
	if text == "" {
		return When{}, field.Because("when.missing")
	}
	for _, s := range signs { // golden and crisp is one sign
		if s.words.MatchString(lead.ReplaceAllString(text, "")) {
			return At(Cond{Sign: s.sign}), nil
		}
	}
	parts := joined.Split(text, -1)
	if len(parts) > 2 {
		return When{}, field.Because("when.two-only")
	}
	if len(parts) == 2 {
		out := When{Both: strings.Contains(joined.FindString(text), "and")}
		var err error
		if out.First, err = cond(parts[0]); err == nil {
			out.Second, err = cond(parts[1])
		}
		return out, err
	}
	one, err := cond(text)
	return At(one), err
}

// ParseEvery reads a rhythm, "every 45 min from bark set until the wrap", or one moment.
func ParseEvery(typed string) (Every, error) {
	m := everyOne.FindStringSubmatch(toEnd.ReplaceAllString(rhythm(orSo.ReplaceAllString(plain(typed), "")), "$1-$2"))
	if m == nil {
		w, err := Parse(typed)
		return Every{From: w}, err
	}
	out := Every{}
	var err error
	if out.Each, err = quantity.ParseDuration(spelt(m[1])); err != nil {
		return out, err
	}
	if out.Each < 5*time.Minute || out.Each > 24*time.Hour {
		return out, field.Because("duration.range", "low", 5*time.Minute, "high", 24*time.Hour)
	}
	out.From = At(Cond{After: out.Each}) // it begins after its first interval
	if m[3] != "" {
		if out.From, err = Parse(m[3]); err != nil {
			return out, err
		}
	}
	if m[4] != "" {
		out.Until, err = Parse(m[4])
	}
	return out, err
}

// said is a moment as it is typed with the words left out that say nothing of when.
func said(text string) string {
	text = betweens.ReplaceAllString(text, "$1 to $2")
	text = lasts.ReplaceAllString(text, "$1 before it is off")
	return strings.TrimSpace(orSo.ReplaceAllString(text, ""))
}

var (
	betweens = regexp.MustCompile(`\bbetween (\S+(?: ?[°cf]+)?) and (\S+)`)
	lasts    = regexp.MustCompile(`\b(?:(?:for|in|during|over) )?the last (.+)$`)
	orSo     = regexp.MustCompile(`\s+(?:or so|or thereabouts)\b`)
)

// rhythm is a rhythm that is said in another way than with every.
func rhythm(text string) string {
	for _, r := range rhythms {
		text = r.said.ReplaceAllString(text, r.means)
	}
	return text
}

var rhythms = []struct {
	said  *regexp.Regexp
	means string
}{
	{regexp.MustCompile(`^hourly\b`), "every hour"},
	{regexp.MustCompile(`^once (?:an|every|per) hour\b`), "every hour"},
	{regexp.MustCompile(`^twice (?:an|every|per) hour\b`), "every 30 min"},
	{regexp.MustCompile(`^every (?:other|second) hour\b`), "every 2 hours"},
	{regexp.MustCompile(`^(?:about|roughly|around) every\b`), "every"},
	{regexp.MustCompile(`^every (?:about|roughly|around)\b`), "every"},
	{regexp.MustCompile(`\bhour (\d+)\b`), "$1 h"},
}

// toEnd is the middle of a range: every 30 to 45 min.
var toEnd = regexp.MustCompile(`(\d)\s+to\s+(\d)`)

// hourly are rhythms without a number.
var hourly = strings.NewReplacer(
	"half an hour",
	"30 min",
	"half hour",
	"30 min",
	"quarter of an hour",
	"15 min",
	"an hour",
	"1 hour",
)

// spelt is a duration that may have no number.
func spelt(text string) string {
	if text = hourly.Replace(text); text == "hour" {
		return "1 hour"
	}
	return text
}

func plain(typed string) string {
	return strings.Join(
		strings.Fields(strings.ToLower(strings.NewReplacer("’", "'", "℃", "°C", "℉", "°F").Replace(typed))),
		" ",
	)
}

// cond reads one condition.
func cond(text string) (Cond, error) {
	text = strings.Trim(text, " ,.")
	for _, s := range signs {
		if s.words.MatchString(text) {
			return Cond{Sign: s.sign}, nil
		}
	}
	if share, ok := through(text); ok {
		return Cond{Share: share}, nil
	}
	if c, ok, err := other(text); ok {
		return c, err
	}
	for shorter := lead.ReplaceAllString(text, ""); shorter != text; shorter = lead.ReplaceAllString(text, "") {
		text = shorter
		for _, s := range signs {
			if s.words.MatchString(text) {
				return Cond{Sign: s.sign}, nil
			}
		}
	}
	if kind, ok := move(text); ok {
		return Cond{Of: kind}, nil
	}
	switch text {
	case "noon", "midday":
		return Cond{Clock: "12:00"}, nil
	case "midnight":
		return Cond{Clock: "00:00"}, nil
	case "stall", "in the stall", "in stall", "stalls", "stalled", "it stalls":
		return Cond{CoreC: stall}, nil
	}
	if c, ok := timeOfDay(text); ok || c.Clock != "" {
		if !ok {
			return Cond{}, field.Because("when.unreadable", "typed", clip(text))
		}
		return c, nil
	}
	span := hoursOn.ReplaceAllString(text, "")
	if d, err := quantity.ParseDuration(span); err == nil {
		if d < time.Minute || d > longest {
			return Cond{}, field.Because("duration.range", "low", time.Minute, "high", longest)
		}
		return Cond{After: d, Range: Range{Off: quantity.DurationOff(span)}}, nil
	}
	core, err := quantity.ParseTemperatureWithin(text, lowC, highC)
	switch {
	case quantity.Asks(err, "celsius-or-fahrenheit"):
		return Cond{}, err
	case err != nil:
		return Cond{}, field.Because("when.unreadable", "typed", clip(text))
	case core < lowC || core > highC:
		return Cond{}, field.Because("temperature.range", "low", quantity.Celsius(lowC), "high", quantity.Celsius(highC))
	}
	return Cond{CoreC: core, Range: Range{OffC: quantity.TemperatureOff(text)}}, nil
}

// other reads a moment before or after another move: "30 min before serving", "after the wrap".
func other(text string) (Cond, bool, error) {
	m := ofMove.FindStringSubmatch(text)
	if m == nil {
		m = regexpAfter.FindStringSubmatch(text)
		if m == nil {
			return Cond{}, false, nil
		}
		m = []string{"", "", m[1], m[2]}
	}
	kind, ok := move(m[3])
	if !ok {
		return Cond{}, false, nil
	}
	out := Cond{Of: kind}
	if by := strings.TrimSpace(m[1]); by != "" && by != "right" && by != "just" {
		d, err := quantity.ParseDuration(spelt(by))
		if err != nil {
			return out, true, err
		}
		out.By, out.Off = d, quantity.DurationOff(spelt(by))
	}
	if out.By < 0 || out.By > longest {
		return out, true, field.Because("duration.range", "low", time.Duration(0), "high", longest)
	}
	if m[2] == "before" {
		out.By = -max(out.By, time.Minute)
		out.Off = min(out.Off, -out.By)
	}
	return out, true, nil
}

var (
	halfway = regexp.MustCompile(`^(?:at )?(?:about |roughly )?(?:the )?half-? ?way(?: through| point| in| along)?(?: the cook)?$`)
	shared  = regexp.MustCompile(`^(?:after |at )?(?:about |roughly )?(.+?) (?:of the (?:way|time|cook)(?: through| in)?|(?:way )?through(?: the cook)?)$`)
)

// through reads a share of the time on the fire: halfway, two thirds of the way through, 75 % through.
func through(text string) (float64, bool) {
	if halfway.MatchString(text) {
		return 0.5, true
	}
	m := shared.FindStringSubmatch(text)
	if m == nil {
		return 0, false
	}
	for words, share := range shares {
		if m[1] == words {
			return share, true
		}
	}
	if percent, ok := strings.CutSuffix(m[1], "%"); ok {
		p, err := quantity.ParsePercent(percent)
		return float64(p) / 100, err == nil && p > 0 && p < 100
	}
	return 0, false
}

var shares = map[string]float64{
	"half": 0.5, "a third": 1. / 3, "one third": 1. / 3, "two thirds": 2. / 3, "a quarter": 0.25, "one quarter": 0.25,
	"three quarters": 0.75,
}

var regexpAfter = regexp.MustCompile(`^(before|after) (.+)$`)

func move(text string) (string, bool) {
	for _, m := range moves {
		if m.words.MatchString(text) {
			return m.kind, true
		}
	}
	return "", false
}

// TimeOfDay reads a time of day as it is said, 07:00, 7 am or 19:30, as minutes after midnight. A number alone is
// none.
func TimeOfDay(text string) (minutes int, ok bool) {
	c, ok := timeOfDay(strings.ToLower(strings.TrimSpace(text)))
	t, _ := time.Parse("15:04", c.Clock)
	return t.Hour()*60 + t.Minute(), ok
}

// timeOfDay is TimeOfDay as a condition; what looks like one and is none has one, too.
func timeOfDay(text string) (Cond, bool) {
	m := clock.FindStringSubmatch(text)
	if m == nil || m[2] == "" && m[3] == "" {
		return Cond{}, false
	}
	layout, value := "15:04", m[1]+":"+cmp.Or(m[2], "00")
	if half := strings.ReplaceAll(m[3], ".", ""); half == "am" || half == "pm" {
		layout, value = "3:04pm", value+half
	}
	t, err := time.Parse(layout, value)
	return Cond{Clock: t.Format("15:04")}, err == nil // else it looks like one, and is none
}

func clip(s string) string {
	if r := []rune(s); len(r) > 40 {
		return string(r[:40])
	}
	return s
}
