# This file is auto-generated from the current state of the database. Instead
# of editing this file, please use the migrations feature of Active Record to
# incrementally modify your database, and then regenerate this schema definition.
#
# This file is the source Rails uses to define your schema when running `bin/rails
# db:schema:load`. When creating a new database, `bin/rails db:schema:load` tends to
# be faster and is potentially less error prone than running all of your
# migrations from scratch. Old migrations may fail to apply correctly if those
# migrations use external dependencies or application code.
#
# It's strongly recommended that you check this file into your version control system.

ActiveRecord::Schema[7.2].define(version: 2026_12_01_000005) do
  create_table "action_changes", id: { type: :string, limit: 36, collation: "ascii_bin" }, charset: "utf8mb4", collation: "utf8mb4_uca1400_ai_ci", force: :cascade do |t|
    t.string "action_item_id", limit: 36, null: false, collation: "ascii_bin"
    t.string "person_id", limit: 36, null: false, collation: "ascii_bin"
    t.string "meeting_id", limit: 36, collation: "ascii_bin"
    t.string "change_kind", limit: 20, null: false, collation: "ascii_bin"
    t.string "word", limit: 500
    t.datetime "changed_at", null: false
    t.datetime "created_at", null: false
    t.datetime "updated_at", null: false
    t.index ["action_item_id"], name: "index_action_changes_on_action_item_id"
    t.index ["meeting_id"], name: "index_action_changes_on_meeting_id"
    t.index ["person_id"], name: "index_action_changes_on_person_id"
  end

  create_table "action_items", id: { type: :string, limit: 36, collation: "ascii_bin" }, charset: "utf8mb4", collation: "utf8mb4_uca1400_ai_ci", force: :cascade do |t|
    t.string "series_id", limit: 36, null: false, collation: "ascii_bin"
    t.string "raised_at_meeting_id", limit: 36, collation: "ascii_bin"
    t.string "line_id", limit: 36, collation: "ascii_bin"
    t.text "text", null: false
    t.date "due_on"
    t.string "state", limit: 20, default: "open", null: false, collation: "ascii_bin"
    t.string "reason", limit: 500
    t.datetime "raised_at", null: false
    t.datetime "closed_at"
    t.string "closed_at_meeting_id", limit: 36, collation: "ascii_bin"
    t.integer "lock_version", default: 0, null: false
    t.datetime "created_at", null: false
    t.datetime "updated_at", null: false
    t.string "split_from_id", limit: 36, collation: "ascii_bin"
    t.string "handed_from_id", limit: 36, collation: "ascii_bin"
    t.string "topic_id", limit: 36, collation: "ascii_bin"
    t.index ["closed_at_meeting_id"], name: "index_action_items_on_closed_at_meeting_id"
    t.index ["handed_from_id"], name: "index_action_items_on_handed_from_id"
    t.index ["line_id"], name: "index_action_items_on_line_id", unique: true
    t.index ["raised_at_meeting_id"], name: "index_action_items_on_raised_at_meeting_id"
    t.index ["series_id", "state"], name: "index_action_items_on_series_id_and_state"
    t.index ["split_from_id"], name: "index_action_items_on_split_from_id"
    t.index ["state", "due_on"], name: "index_action_items_on_state_and_due_on"
    t.index ["topic_id"], name: "index_action_items_on_topic_id"
    t.check_constraint "`state` = 'open' = (`closed_at` is null)", name: "action_items_closed"
    t.check_constraint "`state` in ('open','done','dropped','handed_over')", name: "action_items_state"
  end

  create_table "action_owners", id: { type: :string, limit: 36, collation: "ascii_bin" }, charset: "utf8mb4", collation: "utf8mb4_uca1400_ai_ci", force: :cascade do |t|
    t.string "action_item_id", limit: 36, null: false, collation: "ascii_bin"
    t.string "person_id", limit: 36, null: false, collation: "ascii_bin"
    t.datetime "created_at", null: false
    t.datetime "updated_at", null: false
    t.index ["action_item_id", "person_id"], name: "index_action_owners_on_action_item_id_and_person_id", unique: true
    t.index ["person_id"], name: "index_action_owners_on_person_id"
  end

  create_table "action_reviews", id: { type: :string, limit: 36, collation: "ascii_bin" }, charset: "utf8mb4", collation: "utf8mb4_uca1400_ai_ci", force: :cascade do |t|
    t.string "action_item_id", limit: 36, null: false, collation: "ascii_bin"
    t.string "meeting_id", limit: 36, null: false, collation: "ascii_bin"
    t.string "person_id", limit: 36, null: false, collation: "ascii_bin"
    t.string "verdict", limit: 20, null: false, collation: "ascii_bin"
    t.string "word", limit: 500
    t.datetime "reviewed_at", null: false
    t.datetime "created_at", null: false
    t.datetime "updated_at", null: false
    t.index ["action_item_id", "meeting_id"], name: "index_action_reviews_on_action_item_id_and_meeting_id", unique: true
    t.index ["meeting_id"], name: "index_action_reviews_on_meeting_id"
    t.index ["person_id"], name: "index_action_reviews_on_person_id"
  end

  create_table "agenda_sendings", id: { type: :string, limit: 36, collation: "ascii_bin" }, charset: "utf8mb4", collation: "utf8mb4_uca1400_ai_ci", force: :cascade do |t|
    t.string "meeting_id", limit: 36, null: false, collation: "ascii_bin"
    t.string "sent_by_id", limit: 36, null: false, collation: "ascii_bin"
    t.text "content", size: :long, null: false, collation: "utf8mb4_bin"
    t.integer "recipients", null: false
    t.datetime "sent_at", null: false
    t.datetime "created_at", null: false
    t.datetime "updated_at", null: false
    t.index ["meeting_id", "sent_at"], name: "index_agenda_sendings_on_meeting_id_and_sent_at"
    t.index ["sent_by_id"], name: "fk_rails_966c5dfadd"
  end

  create_table "answers", id: { type: :string, limit: 36, collation: "ascii_bin" }, charset: "utf8mb4", collation: "utf8mb4_uca1400_ai_ci", force: :cascade do |t|
    t.string "meeting_id", limit: 36, null: false, collation: "ascii_bin"
    t.string "person_id", limit: 36, null: false, collation: "ascii_bin"
    t.string "answer", limit: 20, null: false, collation: "ascii_bin"
    t.string "note", limit: 500
    t.string "way", limit: 20, default: "here", null: false, collation: "ascii_bin"
    t.datetime "answered_at", null: false
    t.datetime "created_at", null: false
    t.datetime "updated_at", null: false
    t.datetime "stamp"
    t.string "entered_by_id", limit: 36, collation: "ascii_bin"
    t.datetime "signed_up_at"
    t.datetime "lapsed_at"
    t.index ["entered_by_id"], name: "fk_rails_b394246f33"
    t.index ["meeting_id", "person_id"], name: "index_answers_on_meeting_id_and_person_id", unique: true
    t.index ["person_id"], name: "index_answers_on_person_id"
    t.check_constraint "`answer` in ('accepted','tentative','declined','none')", name: "answers_answer"
  end

  create_table "attendances", id: { type: :string, limit: 36, collation: "ascii_bin" }, charset: "utf8mb4", collation: "utf8mb4_uca1400_ai_ci", force: :cascade do |t|
    t.string "meeting_id", limit: 36, null: false, collation: "ascii_bin"
    t.string "person_id", limit: 36, null: false, collation: "ascii_bin"
    t.string "state", limit: 20, null: false, collation: "ascii_bin"
    t.datetime "created_at", null: false
    t.datetime "updated_at", null: false
    t.boolean "from_call", default: false, null: false
    t.text "spans", size: :long, null: false, collation: "utf8mb4_bin"
    t.index ["meeting_id", "person_id"], name: "index_attendances_on_meeting_id_and_person_id", unique: true
    t.index ["person_id"], name: "index_attendances_on_person_id"
    t.check_constraint "`state` in ('present','on_call','late','left','apologies','absent')", name: "attendances_state"
  end

  create_table "bookings", id: { type: :string, limit: 36, collation: "ascii_bin" }, charset: "utf8mb4", collation: "utf8mb4_uca1400_ai_ci", force: :cascade do |t|
    t.string "open_hours_id", limit: 36, null: false, collation: "ascii_bin"
    t.string "person_id", limit: 36, null: false, collation: "ascii_bin"
    t.string "name", limit: 120, null: false
    t.string "time_zone", limit: 60, null: false
    t.datetime "starts_at", null: false
    t.datetime "ends_at", null: false
    t.text "host_ids", size: :long, null: false, collation: "utf8mb4_bin"
    t.text "answers", size: :long, null: false, collation: "utf8mb4_bin"
    t.string "state", limit: 20, default: "booked", null: false, collation: "ascii_bin"
    t.string "series_id", limit: 36, collation: "ascii_bin"
    t.string "meeting_id", limit: 36, collation: "ascii_bin"
    t.datetime "expires_at"
    t.integer "moves", default: 0, null: false
    t.datetime "created_at", null: false
    t.datetime "updated_at", null: false
    t.index ["meeting_id"], name: "index_bookings_on_meeting_id"
    t.index ["open_hours_id", "starts_at"], name: "index_bookings_on_open_hours_id_and_starts_at"
    t.index ["person_id"], name: "index_bookings_on_person_id"
    t.index ["state", "expires_at"], name: "index_bookings_on_state_and_expires_at"
    t.check_constraint "`starts_at` < `ends_at`", name: "bookings_span"
    t.check_constraint "`state` in ('held','booked','given_back','expired')", name: "bookings_state"
  end

  create_table "busy_entries", id: { type: :string, limit: 36, collation: "ascii_bin" }, charset: "utf8mb4", collation: "utf8mb4_uca1400_ai_ci", force: :cascade do |t|
    t.string "calendar_id", limit: 36, null: false, collation: "ascii_bin"
    t.string "title", limit: 200
    t.datetime "local_start", precision: nil, null: false
    t.datetime "local_end", precision: nil, null: false
    t.boolean "tentative", default: false, null: false
    t.string "rule", limit: 4000
    t.datetime "created_at", null: false
    t.datetime "updated_at", null: false
    t.index ["calendar_id"], name: "index_busy_entries_on_calendar_id"
    t.check_constraint "`local_start` < `local_end`", name: "busy_entries_span"
  end

  create_table "busy_spans", primary_key: ["calendar_id", "starts_min", "ends_min", "kind", "title_key"], charset: "utf8mb4", collation: "utf8mb4_uca1400_ai_ci", force: :cascade do |t|
    t.string "calendar_id", limit: 36, null: false, collation: "ascii_bin"
    t.string "owner_id", limit: 36, null: false, collation: "ascii_bin"
    t.integer "starts_min", null: false
    t.integer "ends_min", null: false
    t.integer "kind", limit: 1, null: false
    t.bigint "title_key", null: false
    t.string "title", limit: 200
    t.datetime "known_at"
    t.index ["owner_id", "starts_min", "ends_min", "kind"], name: "busy_spans_of_owner"
    t.check_constraint "`starts_min` < `ends_min`", name: "busy_spans_span"
  end

  create_table "calendars", id: { type: :string, limit: 36, collation: "ascii_bin" }, charset: "utf8mb4", collation: "utf8mb4_uca1400_ai_ci", force: :cascade do |t|
    t.string "person_id", limit: 36, collation: "ascii_bin"
    t.string "place_id", limit: 36, collation: "ascii_bin"
    t.string "name", limit: 120, null: false
    t.string "kind", limit: 20, null: false, collation: "ascii_bin"
    t.string "address", limit: 1000
    t.string "etag", limit: 500
    t.string "last_modified", limit: 100
    t.datetime "checked_at"
    t.datetime "succeeded_at"
    t.datetime "due_at"
    t.string "last_error", limit: 500
    t.text "warnings", size: :long, collation: "utf8mb4_bin"
    t.integer "events"
    t.datetime "expanded_until"
    t.binary "source", size: :long
    t.string "state", limit: 20, default: "still", null: false, collation: "ascii_bin"
    t.binary "incoming", size: :long
    t.integer "done", default: 0, null: false
    t.integer "total"
    t.string "claim", limit: 36, collation: "ascii_bin"
    t.datetime "leased_until"
    t.integer "lock_version", default: 0, null: false
    t.datetime "created_at", null: false
    t.datetime "updated_at", null: false
    t.integer "tries", default: 0, null: false
    t.index ["due_at"], name: "index_calendars_on_due_at"
    t.index ["kind", "expanded_until"], name: "index_calendars_on_kind_and_expanded_until"
    t.index ["person_id"], name: "index_calendars_on_person_id"
    t.index ["place_id"], name: "index_calendars_on_place_id"
    t.index ["state", "leased_until"], name: "index_calendars_on_state_and_leased_until"
    t.check_constraint "`kind` in ('file','address','by_hand','by_mail')", name: "calendars_kind"
    t.check_constraint "`person_id` is null <> (`place_id` is null)", name: "calendars_owner"
    t.check_constraint "`state` in ('still','waiting','running','failed','cancelled','set_aside')", name: "calendars_state"
    t.check_constraint "json_valid(`warnings`)", name: "warnings"
  end

  create_table "call_links", id: { type: :string, limit: 64, collation: "ascii_bin" }, charset: "utf8mb4", collation: "utf8mb4_uca1400_ai_ci", force: :cascade do |t|
    t.string "series_id", limit: 36, null: false, collation: "ascii_bin"
    t.string "person_id", limit: 36, null: false, collation: "ascii_bin"
    t.string "meeting_id", limit: 36, collation: "ascii_bin"
    t.integer "renewal", null: false
    t.datetime "told_at", null: false
    t.index ["person_id"], name: "index_call_links_on_person_id"
    t.index ["series_id"], name: "index_call_links_on_series_id"
    t.index ["told_at"], name: "index_call_links_on_told_at"
  end

  create_table "call_reports", id: { type: :string, limit: 64, collation: "ascii_bin" }, charset: "utf8mb4", collation: "utf8mb4_uca1400_ai_ci", force: :cascade do |t|
    t.string "call_id", limit: 36, null: false, collation: "ascii_bin"
    t.string "meeting_id", limit: 36, collation: "ascii_bin"
    t.string "kind", limit: 20, null: false, collation: "ascii_bin"
    t.datetime "at", null: false
    t.string "visit", limit: 64, collation: "ascii_bin"
    t.string "person_id", limit: 36, collation: "ascii_bin"
    t.string "name", limit: 120
    t.datetime "came_at"
    t.datetime "created_at", null: false
    t.index ["call_id"], name: "index_call_reports_on_call_id"
    t.index ["meeting_id", "at"], name: "index_call_reports_on_meeting_id_and_at"
  end

  create_table "calls", id: { type: :string, limit: 36, collation: "ascii_bin" }, charset: "utf8mb4", collation: "utf8mb4_uca1400_ai_ci", force: :cascade do |t|
    t.string "series_id", limit: 36, null: false, collation: "ascii_bin"
    t.string "meeting_id", limit: 36, collation: "ascii_bin"
    t.string "state", limit: 20, default: "wanted", null: false, collation: "ascii_bin"
    t.string "passcode", limit: 20, null: false, collation: "ascii_bin"
    t.integer "renewal", default: 0, null: false
    t.string "url", limit: 500
    t.string "number", limit: 40
    t.string "pin", limit: 20
    t.string "told_digest", limit: 64, collation: "ascii_bin"
    t.integer "reports_read", default: 0, null: false
    t.datetime "made_at"
    t.datetime "used_at"
    t.datetime "due_at", null: false
    t.string "claim", limit: 36, collation: "ascii_bin"
    t.datetime "leased_until"
    t.integer "tries", default: 0, null: false
    t.integer "attempts", default: 0, null: false
    t.string "last_error", limit: 500
    t.datetime "created_at", null: false
    t.datetime "updated_at", null: false
    t.datetime "wanted_at"
    t.index ["claim"], name: "index_calls_on_claim"
    t.index ["series_id", "meeting_id"], name: "index_calls_on_series_id_and_meeting_id"
    t.index ["state", "due_at"], name: "index_calls_on_state_and_due_at"
    t.check_constraint "`state` in ('wanted','made','ended','set_aside')", name: "calls_state"
  end

  create_table "changes", primary_key: ["meeting_id", "number"], charset: "utf8mb4", collation: "utf8mb4_uca1400_ai_ci", force: :cascade do |t|
    t.string "meeting_id", limit: 36, null: false, collation: "ascii_bin"
    t.bigint "number", null: false
    t.string "kind", limit: 20, null: false, collation: "ascii_bin"
    t.string "subject_id", limit: 36, collation: "ascii_bin"
    t.datetime "changed_at", null: false
    t.index ["changed_at"], name: "index_changes_on_changed_at"
    t.check_constraint "`kind` in ('line','people','topics','left_over','papers','sheet','call')", name: "changes_kind"
  end

  create_table "counts", id: { type: :string, limit: 190, collation: "utf8mb4_bin" }, charset: "utf8mb4", collation: "utf8mb4_uca1400_ai_ci", force: :cascade do |t|
    t.integer "number", null: false
    t.datetime "expires_at", null: false
    t.index ["expires_at"], name: "index_counts_on_expires_at"
  end

  create_table "days_off", id: { type: :string, limit: 36, collation: "ascii_bin" }, charset: "utf8mb4", collation: "utf8mb4_uca1400_ai_ci", force: :cascade do |t|
    t.string "person_id", limit: 36, null: false, collation: "ascii_bin"
    t.date "off_on", null: false
    t.string "word", limit: 120
    t.datetime "created_at", null: false
    t.datetime "updated_at", null: false
    t.index ["person_id", "off_on"], name: "index_days_off_on_person_id_and_off_on", unique: true
  end

  create_table "deputies", id: { type: :string, limit: 36, collation: "ascii_bin" }, charset: "utf8mb4", collation: "utf8mb4_uca1400_ai_ci", force: :cascade do |t|
    t.string "series_id", limit: 36, null: false, collation: "ascii_bin"
    t.string "meeting_id", limit: 36, collation: "ascii_bin"
    t.string "person_id", limit: 36, null: false, collation: "ascii_bin"
    t.datetime "created_at", null: false
    t.datetime "updated_at", null: false
    t.index ["meeting_id", "person_id"], name: "index_deputies_on_meeting_id_and_person_id", unique: true
    t.index ["person_id"], name: "index_deputies_on_person_id"
    t.index ["series_id", "person_id"], name: "index_deputies_on_series_id_and_person_id"
  end

  create_table "events", id: { type: :string, limit: 36, collation: "ascii_bin" }, charset: "utf8mb4", collation: "utf8mb4_uca1400_ai_ci", force: :cascade do |t|
    t.string "series_id", limit: 36, null: false, collation: "ascii_bin"
    t.string "meeting_id", limit: 36, collation: "ascii_bin"
    t.string "person_id", limit: 36, collation: "ascii_bin"
    t.string "kind", limit: 20, null: false, collation: "ascii_bin"
    t.string "words", limit: 1000, null: false
    t.datetime "happened_at", null: false
    t.datetime "created_at", null: false
    t.datetime "updated_at", null: false
    t.index ["meeting_id"], name: "index_events_on_meeting_id"
    t.index ["person_id"], name: "index_events_on_person_id"
    t.index ["series_id", "happened_at"], name: "index_events_on_series_id_and_happened_at"
  end

  create_table "faults", id: { type: :string, limit: 36, collation: "ascii_bin" }, charset: "utf8mb4", collation: "utf8mb4_uca1400_ai_ci", force: :cascade do |t|
    t.string "step", limit: 40, null: false, collation: "ascii_bin"
    t.string "subject_id", limit: 36, default: "", null: false, collation: "ascii_bin"
    t.integer "tries", default: 0, null: false
    t.string "error", limit: 500, null: false
    t.datetime "failed_at", null: false
    t.datetime "created_at", null: false
    t.datetime "updated_at", null: false
    t.index ["step", "subject_id"], name: "index_faults_on_step_and_subject_id", unique: true
  end

  create_table "file_readings", id: { type: :string, limit: 36, collation: "ascii_bin" }, charset: "utf8mb4", collation: "utf8mb4_uca1400_ai_ci", force: :cascade do |t|
    t.string "person_id", limit: 36, null: false, collation: "ascii_bin"
    t.string "kind", limit: 20, null: false, collation: "ascii_bin"
    t.binary "source", size: :medium
    t.text "settings", size: :long, collation: "utf8mb4_bin"
    t.string "state", limit: 20, default: "waiting", null: false, collation: "ascii_bin"
    t.text "outcome", size: :long, collation: "utf8mb4_bin"
    t.string "error", limit: 500
    t.string "claim", limit: 36, collation: "ascii_bin"
    t.datetime "leased_until"
    t.integer "tries", default: 0, null: false
    t.datetime "created_at", null: false
    t.datetime "updated_at", null: false
    t.index ["created_at"], name: "index_file_readings_on_created_at"
    t.index ["person_id"], name: "fk_rails_7079af22d2"
    t.index ["state", "leased_until"], name: "index_file_readings_on_state_and_leased_until"
    t.check_constraint "`kind` in ('invitation','people','series','actions')", name: "file_readings_kind"
    t.check_constraint "`state` in ('waiting','done','failed')", name: "file_readings_state"
  end

  create_table "group_members", id: { type: :string, limit: 36, collation: "ascii_bin" }, charset: "utf8mb4", collation: "utf8mb4_uca1400_ai_ci", force: :cascade do |t|
    t.string "group_id", limit: 36, null: false, collation: "ascii_bin"
    t.string "person_id", limit: 36, collation: "ascii_bin"
    t.string "member_group_id", limit: 36, collation: "ascii_bin"
    t.datetime "created_at", null: false
    t.datetime "updated_at", null: false
    t.index ["group_id", "member_group_id"], name: "index_group_members_on_group_id_and_member_group_id", unique: true
    t.index ["group_id", "person_id"], name: "index_group_members_on_group_id_and_person_id", unique: true
    t.index ["member_group_id"], name: "index_group_members_on_member_group_id"
    t.index ["person_id"], name: "index_group_members_on_person_id"
    t.check_constraint "`person_id` is null <> (`member_group_id` is null)", name: "group_members_one"
  end

  create_table "groups", id: { type: :string, limit: 36, collation: "ascii_bin" }, charset: "utf8mb4", collation: "utf8mb4_uca1400_ai_ci", force: :cascade do |t|
    t.string "name", limit: 120, null: false
    t.integer "lock_version", default: 0, null: false
    t.datetime "created_at", null: false
    t.datetime "updated_at", null: false
    t.index ["name"], name: "index_groups_on_name", unique: true
  end

  create_table "hold_people", id: { type: :string, limit: 36, collation: "ascii_bin" }, charset: "utf8mb4", collation: "utf8mb4_uca1400_ai_ci", force: :cascade do |t|
    t.string "hold_id", limit: 36, null: false, collation: "ascii_bin"
    t.string "person_id", limit: 36, null: false, collation: "ascii_bin"
    t.string "role", limit: 20, default: "required", null: false, collation: "ascii_bin"
    t.datetime "created_at", null: false
    t.datetime "updated_at", null: false
    t.index ["hold_id", "person_id"], name: "index_hold_people_on_hold_id_and_person_id", unique: true
    t.index ["person_id"], name: "index_hold_people_on_person_id"
  end

  create_table "holds", id: { type: :string, limit: 36, collation: "ascii_bin" }, charset: "utf8mb4", collation: "utf8mb4_uca1400_ai_ci", force: :cascade do |t|
    t.string "title", limit: 160, null: false
    t.string "kept_by_id", limit: 36, null: false, collation: "ascii_bin"
    t.string "series_id", limit: 36, collation: "ascii_bin"
    t.string "place_id", limit: 36, collation: "ascii_bin"
    t.datetime "starts_at", null: false
    t.datetime "ends_at", null: false
    t.integer "before_min", default: 0, null: false
    t.integer "after_min", default: 0, null: false
    t.datetime "expires_at", null: false
    t.datetime "released_at"
    t.integer "lock_version", default: 0, null: false
    t.datetime "created_at", null: false
    t.datetime "updated_at", null: false
    t.index ["expires_at"], name: "index_holds_on_expires_at"
    t.index ["kept_by_id"], name: "index_holds_on_kept_by_id"
    t.index ["place_id"], name: "index_holds_on_place_id"
    t.index ["series_id"], name: "index_holds_on_series_id"
    t.index ["starts_at", "ends_at"], name: "index_holds_on_starts_at_and_ends_at"
    t.check_constraint "`starts_at` < `ends_at`", name: "holds_span"
  end

  create_table "host_turns", primary_key: "person_id", id: { type: :string, limit: 36, collation: "ascii_bin" }, charset: "utf8mb4", collation: "utf8mb4_uca1400_ai_ci", force: :cascade do |t|
    t.integer "number", default: 0, null: false
  end

  create_table "incoming_mails", id: { type: :string, limit: 36, collation: "ascii_bin" }, charset: "utf8mb4", collation: "utf8mb4_uca1400_ai_ci", force: :cascade do |t|
    t.string "digest", limit: 64, null: false, collation: "ascii_bin"
    t.string "sender", limit: 254, null: false, collation: "utf8mb4_bin"
    t.string "subject", limit: 250
    t.binary "source", size: :medium, null: false
    t.string "state", limit: 20, default: "waiting", null: false, collation: "ascii_bin"
    t.string "outcome", limit: 40, collation: "ascii_bin"
    t.string "remark", limit: 500
    t.string "series_id", limit: 36, collation: "ascii_bin"
    t.datetime "received_at", null: false
    t.string "claim", limit: 36, collation: "ascii_bin"
    t.datetime "leased_until"
    t.datetime "created_at", null: false
    t.datetime "updated_at", null: false
    t.integer "tries", default: 0, null: false
    t.text "words"
    t.index ["digest"], name: "index_incoming_mails_on_digest", unique: true
    t.index ["outcome", "received_at"], name: "index_incoming_mails_on_outcome_and_received_at"
    t.index ["series_id"], name: "index_incoming_mails_on_series_id"
    t.index ["state", "leased_until"], name: "index_incoming_mails_on_state_and_leased_until"
    t.check_constraint "`state` in ('waiting','taken','aside','unreadable','set_aside','seen')", name: "incoming_mails_state"
  end

  create_table "lines", id: { type: :string, limit: 36, collation: "ascii_bin" }, charset: "utf8mb4", collation: "utf8mb4_uca1400_ai_ci", force: :cascade do |t|
    t.string "meeting_id", limit: 36, null: false, collation: "ascii_bin"
    t.string "topic_id", limit: 36, collation: "ascii_bin"
    t.string "kind", limit: 20, null: false, collation: "ascii_bin"
    t.text "text", null: false
    t.string "author_id", limit: 36, null: false, collation: "ascii_bin"
    t.datetime "written_at", null: false
    t.integer "lock_version", default: 0, null: false
    t.datetime "created_at", null: false
    t.datetime "updated_at", null: false
    t.bigint "position", default: 0, null: false
    t.integer "indent", limit: 1, default: 0, null: false
    t.text "typed"
    t.text "doubtful"
    t.datetime "removed_at"
    t.string "superseded_by_id", limit: 36, collation: "ascii_bin"
    t.boolean "below_quorum", default: false, null: false
    t.index ["author_id"], name: "index_lines_on_author_id"
    t.index ["meeting_id", "position"], name: "index_lines_on_meeting_id_and_position"
    t.index ["topic_id"], name: "index_lines_on_topic_id"
    t.check_constraint "`indent` in (0,1)", name: "lines_indent"
    t.check_constraint "`kind` in ('note','decision','action')", name: "lines_kind"
  end

  create_table "link_serials", id: { type: :string, limit: 36, collation: "ascii_bin" }, charset: "utf8mb4", collation: "utf8mb4_uca1400_ai_ci", force: :cascade do |t|
    t.string "series_id", limit: 36, null: false, collation: "ascii_bin"
    t.string "person_id", limit: 36, null: false, collation: "ascii_bin"
    t.integer "serial", null: false
    t.datetime "created_at", null: false
    t.datetime "updated_at", null: false
    t.index ["person_id"], name: "fk_rails_9c636c4ea2"
    t.index ["series_id", "person_id"], name: "index_link_serials_on_series_id_and_person_id", unique: true
  end

  create_table "link_wishes", id: { type: :string, limit: 36, collation: "ascii_bin" }, charset: "utf8mb4", collation: "utf8mb4_uca1400_ai_ci", force: :cascade do |t|
    t.string "email", limit: 254, null: false, collation: "utf8mb4_bin"
    t.string "state", limit: 20, default: "waiting", null: false, collation: "ascii_bin"
    t.string "claim", limit: 36, collation: "ascii_bin"
    t.datetime "leased_until"
    t.integer "tries", default: 0, null: false
    t.string "error", limit: 500
    t.datetime "created_at", null: false
    t.datetime "updated_at", null: false
    t.index ["claim"], name: "index_link_wishes_on_claim"
    t.index ["state", "created_at"], name: "index_link_wishes_on_state_and_created_at"
  end

  create_table "made_keys", id: { type: :string, limit: 36, collation: "ascii_bin" }, charset: "utf8mb4", collation: "utf8mb4_uca1400_ai_ci", force: :cascade do |t|
    t.string "kind", limit: 40, null: false, collation: "ascii_bin"
    t.string "made_by_id", limit: 36, collation: "ascii_bin"
    t.string "within_id", limit: 36, collation: "ascii_bin"
    t.datetime "created_at", null: false
    t.string "content", limit: 64, collation: "ascii_bin"
    t.index ["created_at"], name: "index_made_keys_on_created_at"
  end

  create_table "mails", id: { type: :string, limit: 36, collation: "ascii_bin" }, charset: "utf8mb4", collation: "utf8mb4_uca1400_ai_ci", force: :cascade do |t|
    t.string "reason", limit: 190, null: false, collation: "ascii_bin"
    t.string "series_id", limit: 36, collation: "ascii_bin"
    t.string "recipient", limit: 254, null: false, collation: "utf8mb4_bin"
    t.string "subject", limit: 250, null: false
    t.binary "source", size: :medium
    t.string "state", limit: 20, default: "waiting", null: false, collation: "ascii_bin"
    t.integer "attempts", default: 0, null: false
    t.datetime "due_at", null: false
    t.string "claim", limit: 36, collation: "ascii_bin"
    t.datetime "leased_until"
    t.string "last_error", limit: 500
    t.datetime "sent_at"
    t.datetime "created_at", null: false
    t.datetime "updated_at", null: false
    t.string "sending_id", limit: 36, collation: "ascii_bin"
    t.string "person_id", limit: 36, collation: "ascii_bin"
    t.string "before_sending_id", limit: 36, collation: "ascii_bin"
    t.string "kind", limit: 20, collation: "ascii_bin"
    t.string "role", limit: 20, collation: "ascii_bin"
    t.string "way", limit: 10, default: "mail", null: false, collation: "ascii_bin"
    t.string "message_id", limit: 190, collation: "ascii_bin"
    t.datetime "delivered_at"
    t.integer "tries", default: 0, null: false
    t.boolean "digest", default: false, null: false
    t.index ["before_sending_id"], name: "index_mails_on_before_sending_id"
    t.index ["claim"], name: "index_mails_on_claim"
    t.index ["message_id"], name: "index_mails_on_message_id"
    t.index ["person_id"], name: "index_mails_on_person_id"
    t.index ["reason"], name: "index_mails_on_reason", unique: true
    t.index ["recipient", "created_at"], name: "index_mails_on_recipient_and_created_at"
    t.index ["recipient", "digest", "state"], name: "index_mails_on_recipient_and_digest_and_state"
    t.index ["sending_id", "state"], name: "index_mails_on_sending_id_and_state"
    t.index ["series_id", "created_at"], name: "index_mails_on_series_id_and_created_at"
    t.index ["series_id"], name: "index_mails_on_series_id"
    t.index ["state", "due_at"], name: "index_mails_on_state_and_due_at"
    t.check_constraint "`state` in ('waiting','sent','delivered','failed','set_aside')", name: "mails_state"
    t.check_constraint "`way` in ('mail','text')", name: "mails_way"
  end

  create_table "meetings", id: { type: :string, limit: 36, collation: "ascii_bin" }, charset: "utf8mb4", collation: "utf8mb4_uca1400_ai_ci", force: :cascade do |t|
    t.string "series_id", limit: 36, null: false, collation: "ascii_bin"
    t.datetime "original_start", precision: nil, null: false
    t.datetime "starts_at", null: false
    t.datetime "ends_at", null: false
    t.string "state", limit: 20, default: "planned", null: false, collation: "ascii_bin"
    t.string "called_off_reason", limit: 500
    t.datetime "begun_at"
    t.datetime "closed_at"
    t.datetime "issued_at"
    t.string "present_topic_id", limit: 36, collation: "ascii_bin"
    t.datetime "present_since"
    t.integer "left_over_used_s", default: 0, null: false
    t.integer "lock_version", default: 0, null: false
    t.datetime "created_at", null: false
    t.datetime "updated_at", null: false
    t.datetime "moved_at"
    t.boolean "pass_on"
    t.boolean "answers_asked"
    t.boolean "sign_up"
    t.integer "sign_up_limit"
    t.integer "remind_min"
    t.integer "sign_ups", default: 0, null: false
    t.boolean "called_off_with_run", default: false, null: false
    t.boolean "own_where", default: false, null: false
    t.string "place_id", limit: 36, collation: "ascii_bin"
    t.string "place", limit: 250
    t.string "call_url", limit: 500
    t.string "call_passcode", limit: 60
    t.string "call_dial_in", limit: 200
    t.string "correcting_reason", limit: 500
    t.integer "agenda_number", default: 0, null: false
    t.boolean "agenda_touched", default: false, null: false
    t.string "call_kind", limit: 20, default: "none", null: false, collation: "ascii_bin"
    t.integer "row_late_min", default: 0, null: false
    t.boolean "added", default: false, null: false
    t.text "row_plan", size: :long, collation: "utf8mb4_bin"
    t.datetime "instead_of", precision: nil
    t.boolean "for_holiday", default: false, null: false
    t.index ["ends_at"], name: "index_meetings_on_ends_at"
    t.index ["place_id"], name: "fk_rails_2a899e4b51"
    t.index ["series_id", "original_start"], name: "index_meetings_on_series_id_and_original_start", unique: true
    t.index ["series_id", "starts_at"], name: "index_meetings_on_series_id_and_starts_at"
    t.index ["starts_at", "state"], name: "index_meetings_on_starts_at_and_state"
    t.check_constraint "`call_kind` in ('none','own','fresh')", name: "meetings_call_kind"
    t.check_constraint "`starts_at` < `ends_at`", name: "meetings_span"
    t.check_constraint "`state` in ('planned','in_session','closed','issued','called_off')", name: "meetings_state"
  end

  create_table "minutes_pdfs", primary_key: ["id", "open_part"], charset: "utf8mb4", collation: "utf8mb4_uca1400_ai_ci", force: :cascade do |t|
    t.string "id", limit: 36, null: false, collation: "ascii_bin"
    t.binary "bytes", size: :medium, null: false
    t.datetime "created_at", null: false
    t.datetime "updated_at", null: false
    t.boolean "open_part", default: false, null: false
  end

  create_table "minutes_versions", id: { type: :string, limit: 36, collation: "ascii_bin" }, charset: "utf8mb4", collation: "utf8mb4_uca1400_ai_ci", force: :cascade do |t|
    t.string "meeting_id", limit: 36, null: false, collation: "ascii_bin"
    t.integer "number", null: false
    t.string "issued_by_id", limit: 36, null: false, collation: "ascii_bin"
    t.datetime "issued_at", null: false
    t.text "content", size: :long, null: false, collation: "utf8mb4_bin"
    t.datetime "created_at", null: false
    t.datetime "updated_at", null: false
    t.string "reason", limit: 500
    t.string "approved_at_meeting_id", limit: 36, collation: "ascii_bin"
    t.string "approved_by_id", limit: 36, collation: "ascii_bin"
    t.datetime "approved_at"
    t.index ["approved_at_meeting_id"], name: "fk_rails_a10af916c0"
    t.index ["approved_by_id"], name: "fk_rails_1921e91fed"
    t.index ["issued_by_id"], name: "index_minutes_versions_on_issued_by_id"
    t.index ["meeting_id", "number"], name: "index_minutes_versions_on_meeting_id_and_number", unique: true
    t.check_constraint "json_valid(`content`)", name: "content"
  end

  create_table "motions", id: { type: :string, limit: 36, collation: "ascii_bin" }, charset: "utf8mb4", collation: "utf8mb4_uca1400_ai_ci", force: :cascade do |t|
    t.string "line_id", limit: 36, null: false, collation: "ascii_bin"
    t.string "proposer_id", limit: 36, collation: "ascii_bin"
    t.string "seconder_id", limit: 36, collation: "ascii_bin"
    t.string "rule", limit: 20, null: false, collation: "ascii_bin"
    t.integer "in_favour", default: 0, null: false
    t.integer "against", default: 0, null: false
    t.integer "abstained", default: 0, null: false
    t.integer "present", default: 0, null: false
    t.text "votes", size: :long, null: false, collation: "utf8mb4_bin"
    t.datetime "created_at", null: false
    t.datetime "updated_at", null: false
    t.index ["line_id"], name: "index_motions_on_line_id", unique: true
    t.index ["proposer_id"], name: "fk_rails_7378254de2"
    t.index ["seconder_id"], name: "fk_rails_fbbf8b040c"
    t.check_constraint "`rule` in ('votes','present','two_thirds')", name: "motions_rule"
  end

  create_table "offered_times", id: { type: :string, limit: 36, collation: "ascii_bin" }, charset: "utf8mb4", collation: "utf8mb4_uca1400_ai_ci", force: :cascade do |t|
    t.string "series_id", limit: 36, null: false, collation: "ascii_bin"
    t.string "meeting_id", limit: 36, null: false, collation: "ascii_bin"
    t.string "person_id", limit: 36, null: false, collation: "ascii_bin"
    t.datetime "starts_at", null: false
    t.datetime "ends_at", null: false
    t.string "note", limit: 500
    t.string "state", limit: 20, default: "open", null: false, collation: "ascii_bin"
    t.datetime "created_at", null: false
    t.datetime "updated_at", null: false
    t.index ["meeting_id", "state"], name: "index_offered_times_on_meeting_id_and_state"
    t.index ["person_id"], name: "index_offered_times_on_person_id"
    t.index ["series_id"], name: "index_offered_times_on_series_id"
    t.check_constraint "`starts_at` < `ends_at`", name: "offered_times_span"
    t.check_constraint "`state` in ('open','taken','declined')", name: "offered_times_state"
  end

  create_table "open_hours", id: { type: :string, limit: 36, collation: "ascii_bin" }, charset: "utf8mb4", collation: "utf8mb4_uca1400_ai_ci", force: :cascade do |t|
    t.string "title", limit: 160, null: false
    t.text "words"
    t.text "after_words"
    t.string "kept_by_id", limit: 36, null: false, collation: "ascii_bin"
    t.string "time_zone", limit: 60, null: false
    t.string "mode", limit: 20, default: "together", null: false, collation: "ascii_bin"
    t.text "lengths", size: :long, null: false, collation: "utf8mb4_bin"
    t.integer "step_min", default: 30, null: false
    t.integer "before_min", default: 0, null: false
    t.integer "after_min", default: 0, null: false
    t.integer "notice_min", default: 1440, null: false
    t.integer "days_ahead"
    t.date "from_on"
    t.date "until_on"
    t.integer "most_per_day"
    t.integer "most_per_week"
    t.integer "most_per_visitor"
    t.text "questions", size: :long, null: false, collation: "utf8mb4_bin"
    t.text "only_from", size: :long, null: false, collation: "utf8mb4_bin"
    t.text "never_from", size: :long, null: false, collation: "utf8mb4_bin"
    t.text "always_ids", size: :long, null: false, collation: "utf8mb4_bin"
    t.text "calendars_out", size: :long, collation: "utf8mb4_bin"
    t.text "frames", size: :long, null: false, collation: "utf8mb4_bin"
    t.string "place_id", limit: 36, collation: "ascii_bin"
    t.string "place", limit: 250
    t.string "call_kind", limit: 20, default: "none", null: false, collation: "ascii_bin"
    t.string "like_id", limit: 36, collation: "ascii_bin"
    t.boolean "listed", default: false, null: false
    t.boolean "tentative_free", default: false, null: false
    t.boolean "proof", default: false, null: false
    t.boolean "paused", default: false, null: false
    t.integer "serial", default: 0, null: false
    t.datetime "removed_at"
    t.integer "lock_version", default: 0, null: false
    t.datetime "created_at", null: false
    t.datetime "updated_at", null: false
    t.index ["kept_by_id"], name: "index_open_hours_on_kept_by_id"
    t.check_constraint "`call_kind` in ('none','fresh')", name: "open_hours_call_kind"
    t.check_constraint "`mode` in ('together','turns','chosen')", name: "open_hours_mode"
  end

  create_table "open_hours_hosts", id: { type: :string, limit: 36, collation: "ascii_bin" }, charset: "utf8mb4", collation: "utf8mb4_uca1400_ai_ci", force: :cascade do |t|
    t.string "open_hours_id", limit: 36, null: false, collation: "ascii_bin"
    t.string "person_id", limit: 36, null: false, collation: "ascii_bin"
    t.integer "position", null: false
    t.text "week", size: :long, collation: "utf8mb4_bin"
    t.datetime "created_at", null: false
    t.datetime "updated_at", null: false
    t.datetime "agreed_at"
    t.text "calendars_out", size: :long, collation: "utf8mb4_bin"
    t.index ["open_hours_id", "person_id"], name: "index_open_hours_hosts_on_open_hours_id_and_person_id", unique: true
    t.index ["person_id"], name: "index_open_hours_hosts_on_person_id"
  end

  create_table "outside_meetings", id: { type: :string, limit: 36, collation: "ascii_bin" }, charset: "utf8mb4", collation: "utf8mb4_uca1400_ai_ci", force: :cascade do |t|
    t.string "person_id", limit: 36, null: false, collation: "ascii_bin"
    t.string "uid_digest", limit: 64, null: false, collation: "ascii_bin"
    t.string "uid", limit: 500, null: false
    t.string "title", limit: 200, null: false
    t.string "organizer_email", limit: 254, null: false, collation: "utf8mb4_bin"
    t.string "organizer_name", limit: 120
    t.string "location", limit: 500
    t.string "sentence", limit: 500
    t.string "answer", limit: 20, default: "none", null: false, collation: "ascii_bin"
    t.string "note", limit: 500
    t.boolean "called_off", default: false, null: false
    t.datetime "next_starts_at"
    t.datetime "last_ends_at"
    t.datetime "changed_at", null: false
    t.text "messages", size: :long, null: false
    t.integer "lock_version", default: 0, null: false
    t.datetime "created_at", null: false
    t.datetime "updated_at", null: false
    t.text "dates", size: :long, collation: "utf8mb4_bin"
    t.index ["person_id", "uid_digest"], name: "index_outside_meetings_on_person_id_and_uid_digest", unique: true
  end

  create_table "paper_pieces", primary_key: ["paper_id", "number"], charset: "utf8mb4", collation: "utf8mb4_uca1400_ai_ci", force: :cascade do |t|
    t.string "paper_id", limit: 36, null: false, collation: "ascii_bin"
    t.integer "number", null: false
    t.binary "bytes", size: :medium, null: false
  end

  create_table "papers", id: { type: :string, limit: 36, collation: "ascii_bin" }, charset: "utf8mb4", collation: "utf8mb4_uca1400_ai_ci", force: :cascade do |t|
    t.string "series_id", limit: 36, null: false, collation: "ascii_bin"
    t.string "meeting_id", limit: 36, collation: "ascii_bin"
    t.string "brought_by_id", limit: 36, null: false, collation: "ascii_bin"
    t.string "name", limit: 200, null: false
    t.string "content_type", limit: 100, default: "application/octet-stream", null: false
    t.integer "size_bytes", null: false
    t.boolean "complete", default: false, null: false
    t.datetime "created_at", null: false
    t.datetime "updated_at", null: false
    t.string "topic_id", limit: 36, collation: "ascii_bin"
    t.string "action_item_id", limit: 36, collation: "ascii_bin"
    t.index ["action_item_id"], name: "index_papers_on_action_item_id"
    t.index ["brought_by_id"], name: "index_papers_on_brought_by_id"
    t.index ["meeting_id"], name: "index_papers_on_meeting_id"
    t.index ["series_id"], name: "index_papers_on_series_id"
    t.index ["topic_id"], name: "index_papers_on_topic_id"
    t.check_constraint "`meeting_id` is null <> (`action_item_id` is null)", name: "papers_home"
    t.check_constraint "`size_bytes` > 0", name: "papers_size"
  end

  create_table "people", id: { type: :string, limit: 36, collation: "ascii_bin" }, charset: "utf8mb4", collation: "utf8mb4_uca1400_ai_ci", force: :cascade do |t|
    t.string "name", limit: 120, null: false
    t.string "email", limit: 254, null: false, collation: "utf8mb4_bin"
    t.string "time_zone", limit: 60, null: false
    t.string "password_digest", limit: 80
    t.boolean "admin", default: false, null: false
    t.integer "founder", limit: 1
    t.integer "lock_version", default: 0, null: false
    t.datetime "created_at", null: false
    t.datetime "updated_at", null: false
    t.text "working_hours", size: :long, collation: "utf8mb4_bin"
    t.string "region", limit: 20, collation: "ascii_bin"
    t.boolean "holidays_off", default: true, null: false
    t.integer "feed_serial", default: 0, null: false
    t.boolean "feeds_open", default: false, null: false
    t.boolean "guest", default: false, null: false
    t.string "phone", limit: 20, collation: "ascii_bin"
    t.boolean "text_reminders", default: false, null: false
    t.integer "remind_min"
    t.boolean "mail_own", default: false, null: false
    t.integer "link_serial", default: 0, null: false
    t.boolean "mail_digest", default: false, null: false
    t.text "mail_without", size: :long, collation: "utf8mb4_bin"
    t.index ["email"], name: "index_people_on_email", unique: true
    t.index ["founder"], name: "index_people_on_founder", unique: true
    t.index ["guest", "name", "id"], name: "index_people_on_guest_and_name_and_id"
    t.check_constraint "json_valid(`working_hours`)", name: "working_hours"
  end

  create_table "place_bookings", id: { type: :string, limit: 36, collation: "ascii_bin" }, charset: "utf8mb4", collation: "utf8mb4_uca1400_ai_ci", force: :cascade do |t|
    t.string "place_id", limit: 36, null: false, collation: "ascii_bin"
    t.string "meeting_id", limit: 36, null: false, collation: "ascii_bin"
    t.datetime "starts_at", null: false
    t.datetime "ends_at", null: false
    t.datetime "created_at", null: false
    t.datetime "updated_at", null: false
    t.index ["meeting_id", "place_id"], name: "index_place_bookings_on_meeting_id_and_place_id", unique: true
    t.index ["place_id", "starts_at"], name: "index_place_bookings_on_place_id_and_starts_at"
    t.check_constraint "`starts_at` < `ends_at`", name: "place_bookings_span"
  end

  create_table "places", id: { type: :string, limit: 36, collation: "ascii_bin" }, charset: "utf8mb4", collation: "utf8mb4_uca1400_ai_ci", force: :cascade do |t|
    t.string "name", limit: 120, null: false
    t.string "kind", limit: 20, default: "room", null: false, collation: "ascii_bin"
    t.integer "seats"
    t.text "equipment", size: :long, null: false, collation: "utf8mb4_bin"
    t.string "time_zone", limit: 60, null: false
    t.text "opening_hours", size: :long, collation: "utf8mb4_bin"
    t.string "whereabouts", limit: 250
    t.string "looked_after_by_id", limit: 36, collation: "ascii_bin"
    t.integer "lock_version", default: 0, null: false
    t.datetime "created_at", null: false
    t.datetime "updated_at", null: false
    t.datetime "removed_at"
    t.text "prepares", size: :long, collation: "utf8mb4_bin"
    t.index ["looked_after_by_id"], name: "index_places_on_looked_after_by_id"
    t.index ["name"], name: "index_places_on_name", unique: true
    t.check_constraint "`kind` in ('room','equipment')", name: "places_kind"
    t.check_constraint "json_valid(`equipment`)", name: "equipment"
    t.check_constraint "json_valid(`opening_hours`)", name: "opening_hours"
  end

  create_table "poll_answers", id: { type: :string, limit: 36, collation: "ascii_bin" }, charset: "utf8mb4", collation: "utf8mb4_uca1400_ai_ci", force: :cascade do |t|
    t.string "poll_candidate_id", limit: 36, null: false, collation: "ascii_bin"
    t.string "poll_person_id", limit: 36, null: false, collation: "ascii_bin"
    t.string "answer", limit: 20, null: false, collation: "ascii_bin"
    t.datetime "created_at", null: false
    t.datetime "updated_at", null: false
    t.index ["poll_candidate_id"], name: "index_poll_answers_on_poll_candidate_id"
    t.index ["poll_person_id", "poll_candidate_id"], name: "index_poll_answers_on_poll_person_id_and_poll_candidate_id", unique: true
    t.check_constraint "`answer` in ('suits','possible','cannot')", name: "poll_answers_answer"
  end

  create_table "poll_candidates", id: { type: :string, limit: 36, collation: "ascii_bin" }, charset: "utf8mb4", collation: "utf8mb4_uca1400_ai_ci", force: :cascade do |t|
    t.string "time_poll_id", limit: 36, null: false, collation: "ascii_bin"
    t.datetime "starts_at", null: false
    t.string "hold_id", limit: 36, collation: "ascii_bin"
    t.text "busy_then", size: :long, collation: "utf8mb4_bin"
    t.datetime "created_at", null: false
    t.datetime "updated_at", null: false
    t.index ["time_poll_id", "starts_at"], name: "index_poll_candidates_on_time_poll_id_and_starts_at", unique: true
  end

  create_table "poll_people", id: { type: :string, limit: 36, collation: "ascii_bin" }, charset: "utf8mb4", collation: "utf8mb4_uca1400_ai_ci", force: :cascade do |t|
    t.string "time_poll_id", limit: 36, null: false, collation: "ascii_bin"
    t.string "person_id", limit: 36, null: false, collation: "ascii_bin"
    t.string "role", limit: 20, null: false, collation: "ascii_bin"
    t.string "way", limit: 20, default: "link", null: false, collation: "ascii_bin"
    t.datetime "asked_at"
    t.datetime "reminded_at"
    t.datetime "answered_at"
    t.boolean "none_suits", default: false, null: false
    t.boolean "accepts", default: false, null: false
    t.string "comment", limit: 500
    t.datetime "created_at", null: false
    t.datetime "updated_at", null: false
    t.string "said_name", limit: 120
    t.boolean "unproved", default: false, null: false
    t.string "said_email", limit: 254
    t.index ["person_id"], name: "index_poll_people_on_person_id"
    t.index ["time_poll_id", "person_id"], name: "index_poll_people_on_time_poll_id_and_person_id", unique: true
    t.check_constraint "`role` in ('required','optional','informed')", name: "poll_people_role"
  end

  create_table "poll_suggestions", id: { type: :string, limit: 36, collation: "ascii_bin" }, charset: "utf8mb4", collation: "utf8mb4_uca1400_ai_ci", force: :cascade do |t|
    t.string "poll_person_id", limit: 36, null: false, collation: "ascii_bin"
    t.datetime "starts_at", null: false
    t.datetime "created_at", null: false
    t.datetime "updated_at", null: false
    t.index ["poll_person_id"], name: "index_poll_suggestions_on_poll_person_id"
  end

  create_table "preparations", id: { type: :string, limit: 36, collation: "ascii_bin" }, charset: "utf8mb4", collation: "utf8mb4_uca1400_ai_ci", force: :cascade do |t|
    t.string "meeting_id", limit: 36, null: false, collation: "ascii_bin"
    t.string "place_id", limit: 36, null: false, collation: "ascii_bin"
    t.text "items", size: :long, collation: "utf8mb4_bin"
    t.string "state", limit: 20, default: "asked", null: false, collation: "ascii_bin"
    t.string "word", limit: 500
    t.string "told_digest", limit: 64, collation: "ascii_bin"
    t.datetime "created_at", null: false
    t.datetime "updated_at", null: false
    t.index ["meeting_id", "place_id"], name: "index_preparations_on_meeting_id_and_place_id", unique: true
    t.index ["place_id"], name: "index_preparations_on_place_id"
    t.check_constraint "`state` in ('asked','confirmed','refused','off')", name: "preparations_state"
  end

  create_table "row_pickers", id: { type: :string, limit: 36, collation: "ascii_bin" }, charset: "utf8mb4", collation: "utf8mb4_uca1400_ai_ci", force: :cascade do |t|
    t.string "meeting_id", limit: 36, null: false, collation: "ascii_bin"
    t.string "person_id", limit: 36, null: false, collation: "ascii_bin"
    t.string "name", limit: 120, null: false
    t.datetime "asked_at"
    t.datetime "created_at", null: false
    t.datetime "updated_at", null: false
    t.index ["meeting_id", "person_id"], name: "index_row_pickers_on_meeting_id_and_person_id", unique: true
    t.index ["person_id"], name: "index_row_pickers_on_person_id"
  end

  create_table "row_slots", id: { type: :string, limit: 36, collation: "ascii_bin" }, charset: "utf8mb4", collation: "utf8mb4_uca1400_ai_ci", force: :cascade do |t|
    t.string "meeting_id", limit: 36, null: false, collation: "ascii_bin"
    t.string "person_id", limit: 36, null: false, collation: "ascii_bin"
    t.datetime "starts_at", null: false
    t.integer "length_min", null: false
    t.boolean "off", default: false, null: false
    t.string "told_digest", limit: 64, collation: "ascii_bin"
    t.integer "sequence", default: 0, null: false
    t.datetime "created_at", null: false
    t.datetime "updated_at", null: false
    t.datetime "told_starts_at"
    t.index ["meeting_id", "starts_at"], name: "index_row_slots_on_meeting_id_and_starts_at"
    t.index ["person_id"], name: "index_row_slots_on_person_id"
  end

  create_table "search_texts", primary_key: ["series_id", "at", "id"], charset: "utf8mb4", collation: "utf8mb4_uca1400_ai_ci", force: :cascade do |t|
    t.string "series_id", limit: 36, null: false, collation: "ascii_bin"
    t.datetime "at", null: false
    t.string "id", limit: 36, null: false, collation: "ascii_bin"
    t.string "kind", limit: 20, null: false, collation: "ascii_bin"
    t.string "meeting_id", limit: 36, collation: "ascii_bin"
    t.text "text", null: false
    t.text "tokens", null: false, collation: "utf8mb4_bin"
    t.index ["id"], name: "index_search_texts_on_id", unique: true
    t.index ["tokens"], name: "index_search_texts_on_tokens", type: :fulltext
  end

  create_table "seen_notices", primary_key: ["person_id", "notice"], charset: "utf8mb4", collation: "utf8mb4_uca1400_ai_ci", force: :cascade do |t|
    t.string "person_id", limit: 36, null: false, collation: "ascii_bin"
    t.string "notice", limit: 120, null: false, collation: "ascii_bin"
    t.datetime "seen_at", null: false
  end

  create_table "sendings", id: { type: :string, limit: 36, collation: "ascii_bin" }, charset: "utf8mb4", collation: "utf8mb4_uca1400_ai_ci", force: :cascade do |t|
    t.string "series_id", limit: 36, null: false, collation: "ascii_bin"
    t.string "sent_by_id", limit: 36, null: false, collation: "ascii_bin"
    t.integer "sequence", null: false
    t.integer "recipients", null: false
    t.text "note"
    t.datetime "sent_at", null: false
    t.datetime "created_at", null: false
    t.datetime "updated_at", null: false
    t.text "content", size: :long, collation: "utf8mb4_bin"
    t.index ["sent_by_id"], name: "index_sendings_on_sent_by_id"
    t.index ["series_id"], name: "index_sendings_on_series_id"
    t.check_constraint "json_valid(`content`)", name: "content"
  end

  create_table "series", id: { type: :string, limit: 36, collation: "ascii_bin" }, charset: "utf8mb4", collation: "utf8mb4_uca1400_ai_ci", force: :cascade do |t|
    t.string "title", limit: 160, null: false
    t.text "purpose"
    t.string "place", limit: 250
    t.string "keeper_id", limit: 36, null: false, collation: "ascii_bin"
    t.string "chair_id", limit: 36, null: false, collation: "ascii_bin"
    t.string "time_zone", limit: 60, null: false
    t.datetime "local_start", precision: nil, null: false
    t.integer "length_min", null: false
    t.string "rule", limit: 4000
    t.integer "left_over_min", default: 5, null: false
    t.integer "quorum"
    t.integer "sequence", default: 0, null: false
    t.datetime "told_at"
    t.datetime "laid_out_until"
    t.integer "lock_version", default: 0, null: false
    t.datetime "created_at", null: false
    t.datetime "updated_at", null: false
    t.string "place_id", limit: 36, collation: "ascii_bin"
    t.integer "before_min", default: 0, null: false
    t.integer "after_min", default: 0, null: false
    t.datetime "ended_from", precision: nil
    t.integer "remind_min", default: 0, null: false
    t.boolean "remind_papers", default: true, null: false
    t.text "wording"
    t.string "call_url", limit: 500
    t.string "call_passcode", limit: 60
    t.string "call_dial_in", limit: 200
    t.boolean "pass_on", default: false, null: false
    t.boolean "answers_asked", default: true, null: false
    t.boolean "sign_up", default: false, null: false
    t.integer "sign_up_limit"
    t.string "outside_meeting_id", limit: 36, collation: "ascii_bin"
    t.integer "ask_owners_days", default: 2, null: false
    t.integer "agenda_number", default: 0, null: false
    t.string "vote_rule", limit: 20, default: "votes", null: false, collation: "ascii_bin"
    t.integer "quorum_percent"
    t.string "call_kind", limit: 20, default: "none", null: false, collation: "ascii_bin"
    t.integer "call_renewal", default: 0, null: false
    t.boolean "call_dial", default: false, null: false
    t.string "door_policy", limit: 20, default: "members", null: false, collation: "ascii_bin"
    t.integer "door_opens_min", default: 15, null: false
    t.integer "door_stays_min", default: 30, null: false
    t.boolean "door_quiet", default: false, null: false
    t.string "door_presents", limit: 20, default: "everybody", null: false, collation: "ascii_bin"
    t.boolean "door_records", default: false, null: false
    t.string "mark", limit: 20, collation: "ascii_bin"
    t.string "merged_into_id", limit: 36, collation: "ascii_bin"
    t.string "holidays_region", limit: 20, collation: "ascii_bin"
    t.string "holidays_treatment", limit: 20, collation: "ascii_bin"
    t.text "called", size: :long, collation: "utf8mb4_bin"
    t.index ["chair_id"], name: "index_series_on_chair_id"
    t.index ["keeper_id"], name: "index_series_on_keeper_id"
    t.index ["laid_out_until"], name: "index_series_on_laid_out_until"
    t.index ["outside_meeting_id"], name: "fk_rails_5527c87787"
    t.index ["place_id"], name: "index_series_on_place_id"
    t.check_constraint "`call_kind` in ('none','own','standing','fresh')", name: "series_call_kind"
    t.check_constraint "`door_policy` in ('everybody','members','host','known')", name: "series_door"
    t.check_constraint "`holidays_treatment` in ('leave_out','next_day')", name: "series_holidays"
    t.check_constraint "`length_min` > 0", name: "series_length"
    t.check_constraint "json_valid(`called`)", name: "called"
  end

  create_table "series_groups", id: { type: :string, limit: 36, collation: "ascii_bin" }, charset: "utf8mb4", collation: "utf8mb4_uca1400_ai_ci", force: :cascade do |t|
    t.string "series_id", limit: 36, null: false, collation: "ascii_bin"
    t.string "group_id", limit: 36, null: false, collation: "ascii_bin"
    t.string "role", limit: 20, null: false, collation: "ascii_bin"
    t.datetime "created_at", null: false
    t.datetime "updated_at", null: false
    t.index ["group_id"], name: "index_series_groups_on_group_id"
    t.index ["series_id", "group_id"], name: "index_series_groups_on_series_id_and_group_id", unique: true
  end

  create_table "series_members", id: { type: :string, limit: 36, collation: "ascii_bin" }, charset: "utf8mb4", collation: "utf8mb4_uca1400_ai_ci", force: :cascade do |t|
    t.string "series_id", limit: 36, null: false, collation: "ascii_bin"
    t.string "person_id", limit: 36, null: false, collation: "ascii_bin"
    t.string "role", limit: 20, null: false, collation: "ascii_bin"
    t.datetime "created_at", null: false
    t.datetime "updated_at", null: false
    t.string "via_group_id", limit: 36, collation: "ascii_bin"
    t.string "run_answer", limit: 20, default: "none", null: false, collation: "ascii_bin"
    t.string "run_note", limit: 500
    t.index ["person_id"], name: "index_series_members_on_person_id"
    t.index ["series_id", "person_id"], name: "index_series_members_on_series_id_and_person_id", unique: true
    t.index ["via_group_id"], name: "index_series_members_on_via_group_id"
    t.check_constraint "`role` in ('required','optional','informed')", name: "series_members_role"
    t.check_constraint "`run_answer` in ('accepted','tentative','declined','none')", name: "series_members_run_answer"
  end

  create_table "series_places", id: { type: :string, limit: 36, collation: "ascii_bin" }, charset: "utf8mb4", collation: "utf8mb4_uca1400_ai_ci", force: :cascade do |t|
    t.string "series_id", limit: 36, null: false, collation: "ascii_bin"
    t.string "place_id", limit: 36, null: false, collation: "ascii_bin"
    t.datetime "created_at", null: false
    t.datetime "updated_at", null: false
    t.index ["place_id"], name: "index_series_places_on_place_id"
    t.index ["series_id", "place_id"], name: "index_series_places_on_series_id_and_place_id", unique: true
  end

  create_table "sessions", id: { type: :string, limit: 36, collation: "ascii_bin" }, charset: "utf8mb4", collation: "utf8mb4_uca1400_ai_ci", force: :cascade do |t|
    t.string "person_id", limit: 36, null: false, collation: "ascii_bin"
    t.string "token_digest", limit: 64, null: false, collation: "ascii_bin"
    t.string "program", limit: 120
    t.datetime "seen_at", null: false
    t.datetime "ended_at"
    t.datetime "created_at", null: false
    t.datetime "updated_at", null: false
    t.index ["person_id", "ended_at"], name: "index_sessions_on_person_id_and_ended_at"
    t.index ["token_digest"], name: "index_sessions_on_token_digest", unique: true
  end

  create_table "sheet_numbers", primary_key: "meeting_id", id: { type: :string, limit: 36, collation: "ascii_bin" }, charset: "utf8mb4", collation: "utf8mb4_uca1400_ai_ci", force: :cascade do |t|
    t.bigint "number", null: false
  end

  create_table "sign_in_links", id: { type: :string, limit: 36, collation: "ascii_bin" }, charset: "utf8mb4", collation: "utf8mb4_uca1400_ai_ci", force: :cascade do |t|
    t.string "person_id", limit: 36, null: false, collation: "ascii_bin"
    t.string "kind", limit: 20, null: false, collation: "ascii_bin"
    t.string "token_digest", limit: 64, null: false, collation: "ascii_bin"
    t.datetime "expires_at", null: false
    t.datetime "used_at"
    t.datetime "created_at", null: false
    t.datetime "updated_at", null: false
    t.index ["person_id"], name: "index_sign_in_links_on_person_id"
    t.index ["token_digest"], name: "index_sign_in_links_on_token_digest", unique: true
    t.check_constraint "`kind` in ('invited','forgotten')", name: "sign_in_links_kind"
  end

  create_table "speakers", id: { type: :string, limit: 36, collation: "ascii_bin" }, charset: "utf8mb4", collation: "utf8mb4_uca1400_ai_ci", force: :cascade do |t|
    t.string "meeting_id", limit: 36, null: false, collation: "ascii_bin"
    t.string "person_id", limit: 36, null: false, collation: "ascii_bin"
    t.datetime "wanted_at", null: false
    t.datetime "created_at", null: false
    t.datetime "updated_at", null: false
    t.index ["meeting_id", "person_id"], name: "index_speakers_on_meeting_id_and_person_id", unique: true
    t.index ["person_id"], name: "fk_rails_4a89d8b114"
  end

  create_table "standing_topics", id: { type: :string, limit: 36, collation: "ascii_bin" }, charset: "utf8mb4", collation: "utf8mb4_uca1400_ai_ci", force: :cascade do |t|
    t.string "series_id", limit: 36, null: false, collation: "ascii_bin"
    t.string "title", limit: 200, null: false
    t.string "purpose", limit: 20, default: "discussion", null: false, collation: "ascii_bin"
    t.integer "length_min", null: false
    t.string "presenter_id", limit: 36, collation: "ascii_bin"
    t.text "text"
    t.boolean "sub", default: false, null: false
    t.integer "position", null: false
    t.datetime "created_at", null: false
    t.datetime "updated_at", null: false
    t.boolean "closed", default: false, null: false
    t.index ["presenter_id"], name: "fk_rails_3ff2a442fa"
    t.index ["series_id", "position"], name: "index_standing_topics_on_series_id_and_position"
  end

  create_table "substitutes", id: { type: :string, limit: 36, collation: "ascii_bin" }, charset: "utf8mb4", collation: "utf8mb4_uca1400_ai_ci", force: :cascade do |t|
    t.string "meeting_id", limit: 36, null: false, collation: "ascii_bin"
    t.string "person_id", limit: 36, null: false, collation: "ascii_bin"
    t.string "instead_of_id", limit: 36, collation: "ascii_bin"
    t.string "told_digest", limit: 64, collation: "ascii_bin"
    t.datetime "created_at", null: false
    t.datetime "updated_at", null: false
    t.string "given_name", limit: 120, default: "", null: false
    t.index ["instead_of_id"], name: "index_substitutes_on_instead_of_id"
    t.index ["meeting_id", "instead_of_id"], name: "index_substitutes_on_meeting_id_and_instead_of_id", unique: true
    t.index ["person_id"], name: "index_substitutes_on_person_id"
  end

  create_table "tellings", id: { type: :string, limit: 36, collation: "ascii_bin" }, charset: "utf8mb4", collation: "utf8mb4_uca1400_ai_ci", force: :cascade do |t|
    t.string "series_id", limit: 36, null: false, collation: "ascii_bin"
    t.string "person_id", limit: 36, null: false, collation: "ascii_bin"
    t.string "sending_id", limit: 36, null: false, collation: "ascii_bin"
    t.string "kind", limit: 20, null: false, collation: "ascii_bin"
    t.string "digest", limit: 64, null: false, collation: "ascii_bin"
    t.integer "sequence", null: false
    t.datetime "answered_stamp"
    t.datetime "created_at", null: false
    t.datetime "updated_at", null: false
    t.index ["person_id"], name: "index_tellings_on_person_id"
    t.index ["sending_id"], name: "index_tellings_on_sending_id"
    t.index ["series_id", "person_id"], name: "index_tellings_on_series_id_and_person_id", unique: true
    t.check_constraint "`kind` in ('request','cancel')", name: "tellings_kind"
  end

  create_table "time_polls", id: { type: :string, limit: 36, collation: "ascii_bin" }, charset: "utf8mb4", collation: "utf8mb4_uca1400_ai_ci", force: :cascade do |t|
    t.string "title", limit: 160, null: false
    t.text "words"
    t.string "kept_by_id", limit: 36, null: false, collation: "ascii_bin"
    t.integer "length_min", null: false
    t.string "time_zone", limit: 60, null: false
    t.datetime "closes_at", null: false
    t.datetime "remind_at"
    t.string "state", limit: 20, default: "open", null: false, collation: "ascii_bin"
    t.string "shows", limit: 20, default: "tally", null: false, collation: "ascii_bin"
    t.string "tells", limit: 20, default: "all", null: false, collation: "ascii_bin"
    t.boolean "by_itself", default: false, null: false
    t.string "outcome", limit: 20, default: "meeting", null: false, collation: "ascii_bin"
    t.string "series_id", limit: 36, collation: "ascii_bin"
    t.string "meeting_id", limit: 36, collation: "ascii_bin"
    t.string "rule", limit: 4000
    t.string "place_id", limit: 36, collation: "ascii_bin"
    t.string "place", limit: 250
    t.string "call_kind", limit: 20, default: "none", null: false, collation: "ascii_bin"
    t.boolean "holds_times", default: true, null: false
    t.boolean "shared", default: false, null: false
    t.boolean "shares_names", default: false, null: false
    t.integer "shared_serial", default: 0, null: false
    t.string "settled_candidate_id", limit: 36, collation: "ascii_bin"
    t.datetime "settled_at"
    t.boolean "settled_told", default: false, null: false
    t.string "made_series_id", limit: 36, collation: "ascii_bin"
    t.string "made_meeting_id", limit: 36, collation: "ascii_bin"
    t.datetime "moved_from"
    t.string "closed_word", limit: 500
    t.datetime "seen_at"
    t.datetime "result_told_at"
    t.integer "lock_version", default: 0, null: false
    t.datetime "created_at", null: false
    t.datetime "updated_at", null: false
    t.index ["kept_by_id", "state"], name: "index_time_polls_on_kept_by_id_and_state"
    t.index ["series_id"], name: "index_time_polls_on_series_id"
    t.index ["state", "closes_at"], name: "index_time_polls_on_state_and_closes_at"
    t.check_constraint "`outcome` in ('meeting','series','move','within')", name: "time_polls_outcome"
    t.check_constraint "`shows` in ('all','tally','nobody')", name: "time_polls_shows"
    t.check_constraint "`state` in ('open','settled','closed')", name: "time_polls_state"
    t.check_constraint "`tells` in ('each','all','end')", name: "time_polls_tells"
  end

  create_table "topic_visits", id: { type: :string, limit: 36, collation: "ascii_bin" }, charset: "utf8mb4", collation: "utf8mb4_uca1400_ai_ci", force: :cascade do |t|
    t.string "topic_id", limit: 36, null: false, collation: "ascii_bin"
    t.string "meeting_id", limit: 36, null: false, collation: "ascii_bin"
    t.integer "used_s", default: 0, null: false
    t.boolean "put_off", default: false, null: false
    t.datetime "created_at", null: false
    t.datetime "updated_at", null: false
    t.index ["meeting_id"], name: "index_topic_visits_on_meeting_id"
    t.index ["topic_id", "meeting_id"], name: "index_topic_visits_on_topic_id_and_meeting_id", unique: true
  end

  create_table "topics", id: { type: :string, limit: 36, collation: "ascii_bin" }, charset: "utf8mb4", collation: "utf8mb4_uca1400_ai_ci", force: :cascade do |t|
    t.string "series_id", limit: 36, null: false, collation: "ascii_bin"
    t.string "meeting_id", limit: 36, null: false, collation: "ascii_bin"
    t.string "settled_at_meeting_id", limit: 36, collation: "ascii_bin"
    t.string "title", limit: 200, null: false
    t.string "purpose", limit: 20, default: "discussion", null: false, collation: "ascii_bin"
    t.string "presenter_id", limit: 36, collation: "ascii_bin"
    t.string "brought_by_id", limit: 36, null: false, collation: "ascii_bin"
    t.integer "length_min", null: false
    t.integer "position", default: 0, null: false
    t.integer "lock_version", default: 0, null: false
    t.datetime "created_at", null: false
    t.datetime "updated_at", null: false
    t.text "text"
    t.boolean "sub", default: false, null: false
    t.boolean "in_writing", default: false, null: false
    t.string "standing_id", limit: 36, collation: "ascii_bin"
    t.string "state", limit: 20, default: "on", null: false, collation: "ascii_bin"
    t.string "word", limit: 500
    t.string "shared_id", limit: 36, collation: "ascii_bin"
    t.boolean "closed", default: false, null: false
    t.index ["brought_by_id"], name: "index_topics_on_brought_by_id"
    t.index ["closed", "series_id"], name: "index_topics_on_closed_and_series_id"
    t.index ["meeting_id"], name: "index_topics_on_meeting_id"
    t.index ["presenter_id"], name: "index_topics_on_presenter_id"
    t.index ["series_id", "state"], name: "index_topics_on_series_id_and_state"
    t.index ["series_id"], name: "index_topics_on_series_id"
    t.index ["settled_at_meeting_id"], name: "index_topics_on_settled_at_meeting_id"
    t.index ["shared_id"], name: "index_topics_on_shared_id"
    t.check_constraint "`length_min` >= 0", name: "topics_length"
    t.check_constraint "`state` in ('on','brought_in','declined')", name: "topics_state"
  end

  create_table "tries", id: { type: :string, limit: 64, collation: "ascii_bin" }, charset: "utf8mb4", collation: "utf8mb4_uca1400_ai_ci", force: :cascade do |t|
    t.integer "number", null: false
    t.datetime "wait_until"
    t.datetime "expires_at", null: false
    t.index ["expires_at"], name: "index_tries_on_expires_at"
  end

  create_table "writers", primary_key: ["meeting_id", "person_id"], charset: "utf8mb4", collation: "utf8mb4_uca1400_ai_ci", force: :cascade do |t|
    t.string "meeting_id", limit: 36, null: false, collation: "ascii_bin"
    t.string "person_id", limit: 36, null: false, collation: "ascii_bin"
    t.string "topic_id", limit: 36, collation: "ascii_bin"
    t.boolean "editing", default: false, null: false
    t.datetime "seen_at", null: false
    t.index ["seen_at"], name: "index_writers_on_seen_at"
  end

  add_foreign_key "action_changes", "action_items"
  add_foreign_key "action_changes", "meetings"
  add_foreign_key "action_changes", "people"
  add_foreign_key "action_items", "action_items", column: "handed_from_id"
  add_foreign_key "action_items", "action_items", column: "split_from_id"
  add_foreign_key "action_items", "lines"
  add_foreign_key "action_items", "meetings", column: "closed_at_meeting_id"
  add_foreign_key "action_items", "meetings", column: "raised_at_meeting_id"
  add_foreign_key "action_items", "series"
  add_foreign_key "action_owners", "action_items"
  add_foreign_key "action_owners", "people"
  add_foreign_key "action_reviews", "action_items"
  add_foreign_key "action_reviews", "meetings"
  add_foreign_key "action_reviews", "people"
  add_foreign_key "agenda_sendings", "meetings"
  add_foreign_key "agenda_sendings", "people", column: "sent_by_id"
  add_foreign_key "answers", "meetings"
  add_foreign_key "answers", "people"
  add_foreign_key "answers", "people", column: "entered_by_id"
  add_foreign_key "attendances", "meetings"
  add_foreign_key "attendances", "people"
  add_foreign_key "bookings", "open_hours", column: "open_hours_id"
  add_foreign_key "bookings", "people"
  add_foreign_key "busy_entries", "calendars"
  add_foreign_key "busy_spans", "calendars"
  add_foreign_key "calendars", "people"
  add_foreign_key "calendars", "places"
  add_foreign_key "call_reports", "calls", on_delete: :cascade
  add_foreign_key "changes", "meetings", on_delete: :cascade
  add_foreign_key "days_off", "people"
  add_foreign_key "deputies", "meetings"
  add_foreign_key "deputies", "people"
  add_foreign_key "deputies", "series"
  add_foreign_key "events", "meetings"
  add_foreign_key "events", "people"
  add_foreign_key "events", "series"
  add_foreign_key "file_readings", "people"
  add_foreign_key "group_members", "groups"
  add_foreign_key "group_members", "groups", column: "member_group_id"
  add_foreign_key "group_members", "people"
  add_foreign_key "hold_people", "holds"
  add_foreign_key "hold_people", "people"
  add_foreign_key "holds", "people", column: "kept_by_id"
  add_foreign_key "holds", "places"
  add_foreign_key "holds", "series"
  add_foreign_key "incoming_mails", "series"
  add_foreign_key "lines", "meetings"
  add_foreign_key "lines", "people", column: "author_id"
  add_foreign_key "lines", "topics"
  add_foreign_key "link_serials", "people"
  add_foreign_key "link_serials", "series"
  add_foreign_key "mails", "people"
  add_foreign_key "mails", "sendings"
  add_foreign_key "mails", "sendings", column: "before_sending_id"
  add_foreign_key "mails", "series"
  add_foreign_key "meetings", "places"
  add_foreign_key "meetings", "series"
  add_foreign_key "minutes_versions", "meetings"
  add_foreign_key "minutes_versions", "meetings", column: "approved_at_meeting_id"
  add_foreign_key "minutes_versions", "people", column: "approved_by_id"
  add_foreign_key "minutes_versions", "people", column: "issued_by_id"
  add_foreign_key "motions", "lines"
  add_foreign_key "motions", "people", column: "proposer_id"
  add_foreign_key "motions", "people", column: "seconder_id"
  add_foreign_key "offered_times", "meetings"
  add_foreign_key "offered_times", "people"
  add_foreign_key "offered_times", "series"
  add_foreign_key "open_hours", "people", column: "kept_by_id"
  add_foreign_key "open_hours_hosts", "open_hours", column: "open_hours_id"
  add_foreign_key "open_hours_hosts", "people"
  add_foreign_key "outside_meetings", "people"
  add_foreign_key "paper_pieces", "papers"
  add_foreign_key "papers", "meetings"
  add_foreign_key "papers", "people", column: "brought_by_id"
  add_foreign_key "papers", "series"
  add_foreign_key "place_bookings", "meetings"
  add_foreign_key "place_bookings", "places"
  add_foreign_key "places", "people", column: "looked_after_by_id"
  add_foreign_key "poll_answers", "poll_candidates"
  add_foreign_key "poll_answers", "poll_people"
  add_foreign_key "poll_candidates", "time_polls"
  add_foreign_key "poll_people", "people"
  add_foreign_key "poll_people", "time_polls"
  add_foreign_key "poll_suggestions", "poll_people"
  add_foreign_key "preparations", "meetings"
  add_foreign_key "preparations", "places"
  add_foreign_key "row_pickers", "meetings"
  add_foreign_key "row_pickers", "people"
  add_foreign_key "row_slots", "meetings"
  add_foreign_key "row_slots", "people"
  add_foreign_key "seen_notices", "people"
  add_foreign_key "sendings", "people", column: "sent_by_id"
  add_foreign_key "sendings", "series"
  add_foreign_key "series", "outside_meetings"
  add_foreign_key "series", "people", column: "chair_id"
  add_foreign_key "series", "people", column: "keeper_id"
  add_foreign_key "series", "places"
  add_foreign_key "series_groups", "groups"
  add_foreign_key "series_groups", "series"
  add_foreign_key "series_members", "groups", column: "via_group_id"
  add_foreign_key "series_members", "people"
  add_foreign_key "series_members", "series"
  add_foreign_key "series_places", "places"
  add_foreign_key "series_places", "series"
  add_foreign_key "sessions", "people"
  add_foreign_key "sheet_numbers", "meetings", on_delete: :cascade
  add_foreign_key "sign_in_links", "people"
  add_foreign_key "speakers", "meetings"
  add_foreign_key "speakers", "people"
  add_foreign_key "standing_topics", "people", column: "presenter_id"
  add_foreign_key "standing_topics", "series"
  add_foreign_key "substitutes", "meetings"
  add_foreign_key "substitutes", "people"
  add_foreign_key "substitutes", "people", column: "instead_of_id"
  add_foreign_key "tellings", "people"
  add_foreign_key "tellings", "sendings"
  add_foreign_key "tellings", "series"
  add_foreign_key "time_polls", "people", column: "kept_by_id"
  add_foreign_key "topic_visits", "meetings"
  add_foreign_key "topic_visits", "topics"
  add_foreign_key "topics", "meetings"
  add_foreign_key "topics", "meetings", column: "settled_at_meeting_id"
  add_foreign_key "topics", "people", column: "brought_by_id"
  add_foreign_key "topics", "people", column: "presenter_id"
  add_foreign_key "topics", "series"
end
