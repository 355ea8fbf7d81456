module Core
  # Who may what (rules.md 9): one table. A route names a right; a person holds roles towards the series
  # it is about. What is not in the table is refused, and refusing does not reveal that the thing exists.
  module Rights
    # admin: looks after people and places. keeper, chair: run the series. deputy: writes and holds meetings for the
    # keeper. member: must come or comes if free; required: must come. informed: gets the papers. self: the one it
    # belongs to, or who looks after it. person: anybody signed in. anyone: also those who are not.
    ROLES = %i[admin keeper chair deputy member required informed self person anyone].freeze

    RUN = %i[keeper chair].freeze
    HOLD = %i[keeper chair deputy].freeze
    TAKE_PART = %i[keeper chair member].freeze

    TABLE = {
      sign_in: %i[anyone],
      see_own: %i[person],
      make_series: %i[person],
      see_people: %i[person],
      keep_people: %i[admin],
      keep_places: %i[admin],
      keep_groups: %i[admin],
      keep_hours: %i[admin self],
      keep_calendars: %i[admin self],
      keep_place_calendars: %i[admin self],
      see_busy_with_what: %i[self],
      keep_feeds: %i[self],
      renew_links: %i[admin self],
      keep_hold: %i[self],
      be_away: %i[self],
      keep_poll: %i[admin self],
      keep_open_hours: %i[admin self],
      keep_hosting: %i[self],
      keep_sign_ins: %i[person],
      end_sign_in: %i[self],
      see_file_reading: %i[self],
      see_set_aside: %i[admin],
      name_deputy: RUN,
      keep_outside: %i[self],
      take_invitation: %i[person],
      link: %i[anyone],
      see_incoming: %i[admin keeper chair],
      search_times: %i[person],
      see_series: %i[keeper chair member informed],
      change_series: RUN,
      move_meeting: RUN,
      invite: RUN,
      see_strands: TAKE_PART,
      see_sheet: TAKE_PART,
      see_closed: %i[keeper chair deputy required],
      see_issued_minutes: %i[keeper chair member informed],
      hold_meeting: HOLD,
      write_minutes: HOLD,
      see_papers: %i[keeper chair member informed],
      change_paper: TAKE_PART,
      bring_topic: TAKE_PART,
      change_topic: TAKE_PART,
      answer: %i[keeper chair member informed],
      speak: TAKE_PART,
      see_actions: TAKE_PART,
      change_action: TAKE_PART
    }.freeze

    # Things a member may do only to what is their own; keeper and chair may do them to all.
    OWN_ONLY = %i[change_paper change_topic change_action answer speak].freeze

    # What a deputy may do to what is not their own.
    DEPUTY = %i[change_paper change_topic change_action speak].freeze

    module_function

    # @param right [Symbol] a key of TABLE
    # @param roles [Array<Symbol>] held towards the thing
    # @param own [Boolean] whether the thing is the person's own
    def allow?(right, roles, own: false)
      holders = TABLE.fetch(right)
      return false if (holders & roles).empty?

      !OWN_ONLY.include?(right) || own || !(RUN & roles).empty? || (roles.include?(:deputy) && DEPUTY.include?(right))
    end
  end
end
