module Api
  # Papers of a meeting or an action. They are handed out as downloads that run nothing: a file from somebody else is
  # never a page here.
  class Papers < Resource
    HARMLESS = {
      "content-security-policy" => "default-src 'none'; sandbox", "x-content-type-options" => "nosniff",
      "cache-control" => "no-store", "accept-ranges" => "bytes"
    }.freeze

    on(:get, "/meetings/:id/papers", "listPapers", may: :see_papers, of: :meeting) do
      json({papers: Loading::ClosedTopics.papers(params["id"], person_id)})
    end

    on(:post, "/meetings/:id/papers", "beginPaper", may: :bring_topic, of: :meeting) do
      json papers.begin_paper(meeting_id: params["id"], **input), 201
    end

    on(:post, "/actions/:id/papers", "beginActionPaper", may: :change_action, of: :action) do
      json papers.begin_paper(action_id: params["id"], **input), 201
    end

    on :put, "/papers/:id/pieces/:number", "putPaperPiece", may: :change_paper, of: :paper do
      number = Integer(params["number"], 10, exception: false) or raise Core::NotFound
      json papers.put_piece(
        id: params["id"], number: number, bytes: request.body.read(Core::Paper::PIECE_BYTES + 1).to_s
      )
    end

    on :delete, "/papers/:id", "removePaper", may: :change_paper, of: :paper do
      papers.remove(params["id"])
      status 204
    end

    on(:get, "/papers/:id", "readPaper", may: :see_papers, of: :paper) { hand_out(papers.find_whole(params["id"])) }

    on :get, "/answer-links/:id/:personId/:token/papers/:paperId", "readPaperByLink",
      may: :link, of: :answer do
      paper = papers.find_whole(params["paperId"])
      raise Core::NotFound unless link.meetings.exists?(id: paper.meeting_id)
      raise Core::NotFound if Loading::ClosedTopics.hides?(paper.topic_id, params["personId"])

      hand_out paper
    end

    on :get, "/answer-links/:id/:personId/:token/minutes/:meetingId", "readMinutesByLink",
      may: :link, of: :answer do
      raise Core::NotFound unless link.meetings.exists?(id: params["meetingId"])

      minutes = Views::MinutesFile.new(by: params["personId"])
      hand_out_pdf(*minutes.issued_pdf(params["meetingId"]))
    end

    on :get, "/meetings/:id/agenda", "readAgenda", may: :see_sheet, of: :meeting do
      hand_out_pdf(*use(Views::Agenda).pdf(params["id"]))
    end

    Views::MinutesFile::FORMS.each_key do |form|
      on :get, "/meetings/:id/minutes.#{form}", "readMinutes#{form.capitalize}", may: :see_sheet, of: :meeting do
        name, type, bytes = use(Views::MinutesFile).file(
          params["id"], form, number: number("version")
        )
        content_type type
        headers HARMLESS.merge("content-disposition" => disposition(name), "cache-control" => "no-store")
        bytes
      end
    end

    private

    def papers = use(UseCases::Papers)

    def hand_out_pdf(name, bytes)
      content_type "application/pdf"
      headers HARMLESS.merge("content-disposition" => disposition(name), "cache-control" => "no-store")
      bytes
    end

    # One range, as RFC 9110 14.2 has it; others get the whole.
    def hand_out(paper)
      size = paper.size_bytes
      from, to = Rack::Utils.get_byte_ranges(request.env["HTTP_RANGE"], size)&.then { |ranges|
        if ranges.one?
          [ranges.first.begin, ranges.first.end]
        else
          (ranges.empty? ? halt(416, HARMLESS.merge("content-range" => "bytes */#{size}"), "") : nil)
        end
      }
      partial = !from.nil?
      from, to = [0, size - 1] unless partial
      content_type paper.content_type
      headers HARMLESS.merge(
        "content-disposition" => disposition(paper.name), "etag" => %("#{paper.id}"),
        "content-length" => (to - from + 1).to_s
      )
      headers "content-range" => "bytes #{from}-#{to}/#{size}" if partial
      status(partial ? 206 : 200)
      UseCases::Papers.new.enum_for(:each_part, paper.id, from, to)
    end

    # RFC 6266 and 8187: a plain name for old programs, the whole name beside it.
    def disposition(name)
      plain = name.gsub(/[^\x20-\x7E]|["\\%]/, "_")
      %(attachment; filename="#{plain}"; filename*=UTF-8''#{URI.encode_www_form_component(name).gsub("+", "%20")})
    end
  end
end
