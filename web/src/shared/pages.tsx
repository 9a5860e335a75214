import { Pagination, type PaginationProps } from "antd";

/** Numbers of the pages of a list. Only long lists have them, so they are fetched then. */
export default function Pages(p: PaginationProps) {
	return <Pagination {...p} showSizeChanger={false} />;
}
