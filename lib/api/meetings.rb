module Api
  # A meeting and its sheet.
  class Meetings < Resource
    on(:get, "/meetings/:id", "showSheet", may: :see_sheet, of: :meeting) { json sheet }

    on :get, "/meetings/:id/live", "followSheet", may: :see_sheet, of: :meeting do
      closed = Loading::ClosedTopics.reads?(params["id"], person_id)
      Live.hub.stream(params["id"], closed: closed, after: last_seen)
    end

    on :put, "/meetings/:id/state", "changeMeetingState", may: :hold_meeting, of: :meeting do
      meetings.change_state(meeting_id: params["id"], **input)
      json sheet
    end

    on :post, "/meetings/:id/correction", "correctMinutes", may: :hold_meeting, of: :meeting do
      issuing.correct(meeting_id: params["id"], **input)
      json sheet
    end

    on :delete, "/meetings/:id/correction", "leaveAsIssued", may: :hold_meeting, of: :meeting do
      issuing.leave_as_issued(params["id"])
      json sheet
    end

    on :put, "/meetings/:id/approval", "approveMinutes", may: :hold_meeting, of: :meeting do
      issuing.approve(meeting_id: params["id"], **input)
      json use(Views::Sheet).show(input[:at_meeting_id])
    end

    on :put, "/meetings/:id/time", "moveMeeting", may: :move_meeting, of: :meeting do
      changes.move(meeting_id: params["id"], version: version, **input)
      json sheet
    end

    # Time and place of this meeting alone.
    on :put, "/meetings/:id", "changeMeeting", may: :move_meeting, of: :meeting do
      own = input[:own_where] ? input.slice(:place_id, :place, :call) : :series
      changes.move(
        meeting_id: params["id"], version: version, **input.slice(:local_start, :length_min), own: own,
        place_anyway: input.fetch(:place_anyway, false)
      )
      json sheet
    end

    on :put, "/meetings/:id/series", "putIntoSeries", may: :move_meeting, of: :meeting do
      use(UseCases::IntoSeries).put(meeting_id: params["id"], **input)
      json sheet
    end

    on :post, "/meetings/:id/time/check", "checkMeetingTime", may: :move_meeting, of: :meeting do
      json use(Views::StillHolds).check_meeting(params["id"], **input)
    end

    # Asked to this meeting besides those of the series.
    on :post, "/meetings/:id/extras", "askToo", may: :move_meeting, of: :meeting do
      use(UseCases::Substitutes).ask_too(meeting_id: params["id"], **input)
      json sheet
    end

    on :delete, "/meetings/:id/extras/:personId", "askNoMore", may: :move_meeting, of: :meeting do
      use(UseCases::Substitutes).ask_no_more(meeting_id: params["id"], person_id: params["personId"])
      json sheet
    end

    on :put, "/meetings/:id/attendance/:personId", "takeAttendance", may: :hold_meeting, of: :meeting do
      attendance.attend(meeting_id: params["id"], person_id: params["personId"], **input)
      json sheet
    end

    on :put, "/meetings/:id/attendance", "takeAttendanceOfAll", may: :hold_meeting, of: :meeting do
      attendance.attend_all(
        meeting_id: params["id"], states: input[:people].to_h { |one| [one[:person_id], one[:state]] },
        times: input[:people].select { |one| one.key?(:times) }.to_h { |one| [one[:person_id], one[:times]] }
      )
      json sheet
    end

    on :put, "/meetings/:id/answers/:personId", "answerMeeting", may: :answer, of: :meeting do
      use(UseCases::Answers).enter(meeting_id: params["id"], person_id: params["personId"], **input)
      json({answer: input[:answer], note: input[:note]})
    end

    on :post, "/meetings/:id/reading", "readLine", may: :write_minutes, of: :meeting do
      json use(Views::Line).read(params["id"], input[:text])
    end

    on :post, "/meetings/:id/lines", "addLine", may: :write_minutes, of: :meeting do
      minutes.add(meeting_id: params["id"], **input)
      json use(Views::Line).show(input[:id]), 201
    end

    on :put, "/lines/:id", "changeLine", may: :write_minutes, of: :line do
      minutes.change(id: params["id"], version: version, **input)
      json use(Views::Line).show(params["id"])
    end

    on :get, "/lines/:id", "showLine", may: :see_sheet, of: :line do
      json use(Views::Line).show(params["id"])
    end

    on :put, "/lines/:id/position", "moveLine", may: :write_minutes, of: :line do
      minutes.move(id: params["id"], **input)
      json use(Views::Line).show(params["id"])
    end

    on :post, "/lines/:id/restore", "restoreLine", may: :write_minutes, of: :line do
      minutes.restore(id: params["id"], **input)
      json use(Views::Line).show(params["id"])
    end

    on :delete, "/lines/:id", "removeLine", may: :write_minutes, of: :line do
      minutes.remove(params["id"])
      status 204
    end

    on :put, "/lines/:id/superseding", "supersedeDecision", may: :write_minutes, of: :line do
      use(UseCases::Superseding).set(line_id: params["id"], **input)
      status 204
    end

    on :put, "/lines/:id/motion", "setMotion", may: :write_minutes, of: :line do
      use(UseCases::Motions).set(line_id: params["id"], **input, votes: votes)
      json use(Views::Line).show(params["id"])
    end

    on :delete, "/lines/:id/motion", "withdrawMotion", may: :write_minutes, of: :line do
      use(UseCases::Motions).remove(params["id"])
      json use(Views::Line).show(params["id"])
    end

    on :put, "/meetings/:id/writing", "tellWriting", may: :write_minutes, of: :meeting do
      use(UseCases::Writers).tell(meeting_id: params["id"], **input)
      status 204
    end

    on :put, "/meetings/:id/deputies/:personId", "setDeputyAt", may: :name_deputy, of: :meeting do
      use(UseCases::Deputies).set_at(meeting_id: params["id"], person_id: params["personId"], **input)
      json sheet
    end

    on :put, "/meetings/:id/speakers/:personId", "setSpeaker", may: :speak, of: :meeting do
      use(UseCases::Speakers).set(meeting_id: params["id"], person_id: params["personId"], **input)
      json sheet
    end

    private

    # By name: a list, since keys of people are no names of fields.
    def votes = (input[:votes] || []).to_h { |vote| [vote[:person_id], vote[:vote]] }

    # The last change a reader knows of: what their browser was told last, or what was on the page.
    def last_seen
      told = request.env["HTTP_LAST_EVENT_ID"].to_s[/\A\d{1,15}\z/]
      told ? told.to_i : number("after")
    end

    def meetings = use(UseCases::Meetings)

    def minutes = use(UseCases::Minutes)

    def issuing = use(UseCases::Issuing)

    def changes = use(UseCases::MeetingChanges)

    def attendance = use(UseCases::Attendance)
  end
end
