package store

import (
	"encoding/json"
	"fmt"
	"strconv"
	"strings"
	"time"

	"gorm.io/gorm"

	"verjuice/internal/core/cook"
	"verjuice/internal/core/formula"
	"verjuice/internal/core/quantity"
)

type cookModel struct {
	ID        uint64
	Version   uint
	Name      string
	ServeAt   string
	Zone      string
	Guests    int
	Portion   string `gorm:"column:serving"`
	Fridge    string
	Room      string
	Plan      string
	CreatedAt time.Time
	UpdatedAt time.Time
	DeletedAt gorm.DeletedAt
	Pieces    []pieceModel `gorm:"foreignKey:CookID"`
}

func (cookModel) TableName() string { return "cooks" }

type pieceModel struct {
	ID           uint64
	CookID       uint64
	Position     int
	Label        string
	Cut          string
	Count        int `gorm:"column:pieces"`
	Bought       string
	Trimmed      string
	Together     bool
	TrimStyle    string
	Thickness    string
	Faces        string
	Mode         string
	Target       string
	FreeSource   string
	Coat         string
	Binder       bool
	Band         string
	Spare        string
	Formula      string
	FormulaName  string
	FormulaNote  string
	FormulaKind  string
	FormulaTags  string
	FormulaBasis string
	WaitStyle    string
	WaitFor      string
	WaitOpen     bool
	Pit          string
	FireTime     string
	Rest         string
	Temper       string
	Wet          string
	Rows         []rowModel `gorm:"foreignKey:PieceID"`
}

func (pieceModel) TableName() string { return "pieces" }

type rowModel struct {
	ID         uint64
	PieceID    uint64
	Position   int
	Ingredient string
	Form       string
	Formula    string
	Parts      string
}

func (rowModel) TableName() string { return "rub_rows" }

func toModel(c cook.Cook) cookModel {
	m := cookModel{
		Name: c.Name, ServeAt: c.ServeAt, Zone: c.Zone, Guests: c.Guests,
		Portion: c.Portion, Fridge: c.Fridge, Room: c.Room, Plan: encodePlanning(c),
	}
	for i, p := range c.Pieces {
		f := p.Season.Formula
		pm := pieceModel{
			Position: i, Label: p.Label, Cut: p.Cut, Count: p.Count, Bought: p.Bought, Trimmed: p.Trimmed,
			Together: p.Together, TrimStyle: p.TrimStyle, Thickness: p.Thickness, Faces: p.Faces,
			Mode: p.Season.Mode, Target: p.Season.Target, FreeSource: p.Season.Free, Coat: p.Season.Coat, Binder: p.Season.Binder,
			Band: p.Season.Band, Spare: p.Season.Spare,
			Formula: f.ID, FormulaName: f.Name, FormulaNote: f.Note, FormulaBasis: string(f.Basis),
			FormulaKind: string(f.Kind), FormulaTags: strings.Join(f.Tags, ","),
			WaitStyle: p.Wait.Style, WaitFor: p.Wait.For, WaitOpen: p.Wait.Open,
			Pit: p.Fire.Pit, FireTime: p.Fire.Time, Rest: p.Fire.Rest, Temper: p.Fire.Temper,
		}
		pm.Wet = encodeRest(p)
		for j, r := range f.Rows {
			pm.Rows = append(pm.Rows, rowModel{Position: j, Ingredient: r.Ingredient, Form: r.Form, Formula: r.Formula, Parts: r.Parts})
		}
		m.Pieces = append(m.Pieces, pm)
	}
	return m
}

func (m cookModel) cook() (cook.Cook, error) {
	c := cook.Cook{
		Name: m.Name, ServeAt: m.ServeAt, Zone: m.Zone, Guests: m.Guests,
		Portion: m.Portion, Fridge: m.Fridge, Room: m.Room, Pieces: []cook.Piece{},
	}
	if err := decodePlanning(m.Plan, &c); err != nil {
		return c, fmt.Errorf("plan of cook %d: %w", m.ID, err)
	}
	for _, p := range m.Pieces {
		f := formula.Formula{
			ID: p.Formula, Name: p.FormulaName, Note: p.FormulaNote, Basis: formula.Basis(p.FormulaBasis), Kind: formula.Kind(p.FormulaKind),
			Rows: make([]formula.Row, 0, len(p.Rows)),
		}
		if p.FormulaTags != "" {
			f.Tags = strings.Split(p.FormulaTags, ",")
		}
		for _, r := range p.Rows {
			f.Rows = append(f.Rows, formula.Row{Ingredient: r.Ingredient, Form: r.Form, Formula: r.Formula, Parts: r.Parts})
		}
		piece := cook.Piece{
			Label: p.Label, Cut: p.Cut, Count: p.Count, Bought: p.Bought, Trimmed: p.Trimmed,
			Together: p.Together, TrimStyle: p.TrimStyle, Thickness: p.Thickness, Faces: p.Faces,
			Season: cook.Season{
				Formula: f, Mode: p.Mode, Target: p.Target, Free: p.FreeSource, Coat: p.Coat, Binder: p.Binder, Band: p.Band, Spare: p.Spare,
			},
			Wait: cook.Wait{Style: p.WaitStyle, For: p.WaitFor, Open: p.WaitOpen},
			Fire: cook.Fire{Pit: p.Pit, Time: p.FireTime, Rest: p.Rest, Temper: p.Temper},
		}
		if err := decodeRest(p.Wet, &piece); err != nil {
			return c, fmt.Errorf("piece %d of cook %d: %w", p.Position, m.ID, err)
		}
		c.Pieces = append(c.Pieces, piece)
	}
	return keyed(c), nil
}

// keyed gives pieces from before there were keys one by their place, which is how
// photographs and fixed times have named them since.
func keyed(c cook.Cook) cook.Cook {
	taken := map[string]bool{}
	for _, p := range c.Pieces {
		taken[p.Key] = true
	}
	for i := range c.Pieces {
		for n := i + 1; c.Pieces[i].Key == ""; n++ {
			if key := "p" + strconv.Itoa(n); !taken[key] {
				c.Pieces[i].Key, taken[key] = key, true
			}
		}
	}
	return c
}

// rest is what a piece has besides its columns, kept as one document: each part is
// there or not, and is read and written whole.
type rest struct {
	Key      string            `json:"key,omitempty"`
	Bath     *cook.Bath        `json:"bath,omitempty"`
	Inject   *cook.Injection   `json:"inject,omitempty"`
	Layers   []cook.Layer      `json:"layers,omitempty"`
	Weighed  []string          `json:"weighed,omitempty"`
	Choices  map[string]string `json:"choices,omitempty"`
	Grain    string            `json:"grain,omitempty"`
	TrimNote string            `json:"trim_note,omitempty"`
	On       int               `json:"on,omitempty"`
	Done     string            `json:"done,omitempty"`
	// Spoons are those that the rub's measures are typed in.
	Spoons quantity.SpoonSet `json:"spoons,omitempty"`
}

func encodeRest(p cook.Piece) string {
	return document(rest{p.Key, p.Bath, p.Inject, p.Layers, p.Weighed, p.Choices, p.Grain, p.TrimNote, p.Fire.On, p.Fire.Done, p.Season.Formula.Spoons})
}

func decodeRest(body string, p *cook.Piece) error {
	var r rest
	if err := readDocument(body, &r); err != nil {
		return err
	}
	p.Key, p.Bath, p.Inject, p.Layers, p.Weighed = r.Key, r.Bath, r.Inject, r.Layers, r.Weighed
	p.Choices, p.Grain, p.TrimNote, p.Fire.On, p.Fire.Done = r.Choices, r.Grain, r.TrimNote, r.On, r.Done
	p.Season.Formula.Spoons = r.Spoons
	return nil
}

// planning is what a cook has besides its columns.
type planning struct {
	Children  int               `json:"children,omitempty"`
	Appetite  string            `json:"appetite,omitempty"`
	Leftovers int               `json:"leftovers,omitempty"`
	Quiet     string            `json:"quiet,omitempty"`
	Hands     int               `json:"hands,omitempty"`
	Pits      []cook.Pit        `json:"pits,omitempty"`
	Plan      string            `json:"plan,omitempty"`
	Wishes    []cook.Wish       `json:"wishes,omitempty"`
	Spoons    quantity.SpoonSet `json:"spoons,omitempty"`
	// Marks are from before facts were apart: wishes, and what was done, which the
	// migration has copied into facts.
	Marks []oldMark `json:"marks,omitempty"`
}

type oldMark struct {
	cook.Wish
	Done bool `json:"done"`
}

func encodePlanning(c cook.Cook) string {
	return document(planning{
		Children: c.Children, Appetite: c.Appetite, Leftovers: c.Leftovers, Quiet: c.Quiet, Hands: c.Hands, Pits: c.Pits, Plan: c.Plan, Wishes: c.Wishes, Spoons: c.Spoons,
	})
}

func decodePlanning(body string, c *cook.Cook) error {
	var p planning
	if err := readDocument(body, &p); err != nil {
		return err
	}
	c.Children, c.Appetite, c.Leftovers, c.Quiet, c.Hands = p.Children, p.Appetite, p.Leftovers, p.Quiet, p.Hands
	c.Pits, c.Plan, c.Wishes, c.Spoons = p.Pits, p.Plan, p.Wishes, p.Spoons
	for _, m := range p.Marks {
		if !m.Done {
			c.Wishes = append(c.Wishes, m.Wish)
		}
	}
	return nil
}

// document is v as JSON; empty when there is nothing in it.
func document(v any) string {
	body, err := json.Marshal(v)
	if err != nil {
		panic(err) // plain data
	}
	if string(body) == "{}" {
		return ""
	}
	return string(body)
}

func readDocument(body string, v any) error {
	if body == "" {
		return nil
	}
	return json.Unmarshal([]byte(body), v)
}
