package craft

// Stage names a stage of the work on a zone.
type Stage string

// The stages that rules and fields belong to, in the order of the work. NoStage is no stage.
const (
	StageSurvey   Stage = "look_over"
	StageIdentify Stage = "identify"
	StagePrepare  Stage = "prepare"
	StageCoats    Stage = "coats"
	StageMix      Stage = "mix"
	StageJobSheet Stage = "hand_over"
	StageWork     Stage = "work"
	NoStage       Stage = "none"
)
